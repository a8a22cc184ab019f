"""A short chaos run; `make chaos` is the long one."""

import pytest

from tests.chaos.run import run


@pytest.mark.sweep
def test_after_chaos_each_order_payment_mail_pack_and_file_is_there_once(tmp_path):
    # That a request which met the very moment was answered by a fault of ours is told by the long run.
    wrong = run(18, seed=7, folder=tmp_path, name="chaos-test")
    assert [what for what in wrong if not what.endswith(": 500")] == []
