"""Clearing: what nobody needs goes after its days, what somebody points to stays."""

from datetime import timedelta

import pytest
from django.conf import settings
from django.utils import timezone

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.models import Design, Personalization, Proof, Upload
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.services.clearing import clear_old
from yenzo.apps.files.store import store_file
from yenzo.apps.shop.models import SignInLink

pytestmark = pytest.mark.django_db


def age(rows, field, days):
    rows.update(**{field: timezone.now() - timedelta(days=days)})


def old_file(data):
    stored = store_file(data)
    age(StoredFile.objects.filter(pk=stored.pk), "kept_at", 3)
    return stored


def test_file_that_nothing_points_to_goes_with_its_bytes_and_all_others_stay(product, make_upload, visitor):
    lost, fresh = old_file(b"nobody's"), store_file(b"just sent")
    make_upload(visitor)
    age(StoredFile.objects.exclude(pk=fresh.pk), "kept_at", 3)
    before = set(StoredFile.objects.values_list("pk", flat=True))
    assert clear_old(SYSTEM_ACTOR, timezone.now()).counts["unused_files"] == 1
    assert before - set(StoredFile.objects.values_list("pk", flat=True)) == {lost.pk}
    assert not (settings.FILES_ROOT / lost.path).exists()


def test_draft_and_its_undo_hold_their_pictures(product, owner):
    from yenzo.apps.products.services.drafts import edit_draft

    picture = old_file(b"a picture, once")
    value = {"asset": picture.pk, "width_px": 10, "height_px": 10}
    steps = [{"do": "set", "path": ["offer", "picture"], "value": value}]
    edit_draft(owner, product.pk, steps, seen_version=product.draft_version, label="Picture")
    steps = [{"do": "set", "path": ["offer", "picture"], "value": None}]
    edit_draft(owner, product.pk, steps, seen_version=product.draft_version + 1, label="No picture")
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert StoredFile.objects.filter(pk=picture.pk).exists()


def test_uploads_and_designs_go_when_nobody_ordered_them(visitor, make_upload, put_in_basket, order):
    idle, used = make_upload(visitor), make_upload(visitor, "kept.jpg")
    design = put_in_basket(visitor, used)
    age(Upload.objects.all(), "sent_at", 20)
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert not Upload.objects.filter(pk=idle.pk).exists()
    assert Upload.objects.filter(pk=used.pk).exists()
    assert Design.objects.filter(pk=design.pk).exists()
    age(Design.objects.all(), "changed_at", 100)
    age(Personalization.objects.all(), "made_at", 100)
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert not Design.objects.exists()
    assert not Upload.objects.exists()
    assert order.lines.count() == 1


def test_ordered_upload_stays_whatever_its_age(visitor, make_upload, put_in_basket, checkout_of):
    from tests.apps.conftest import GUEST
    from yenzo.apps.shop.services.checkout import order_basket

    upload = make_upload(visitor)
    order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor, upload)]))
    age(Upload.objects.all(), "sent_at", 4000)
    age(Design.objects.all(), "changed_at", 4000)
    age(Personalization.objects.all(), "made_at", 4000)
    age(StoredFile.objects.all(), "kept_at", 4000)
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert Upload.objects.filter(pk=upload.pk).exists()
    assert StoredFile.objects.filter(pk=upload.original_id).exists()


def test_links_and_parts_left_behind_go_and_the_page_says_what_will_and_what_went(sign_in):
    import os

    SignInLink.objects.create(mail="rell@post.example", language="en-gb")
    age(SignInLink.objects.all(), "asked_at", 2)
    part = settings.FILES_ROOT / "content" / "ab" / ".part-left"
    part.parent.mkdir(parents=True, exist_ok=True)
    part.write_bytes(b"half")
    os.utime(part, (1, 1))
    owner = sign_in("owner")
    said = owner.get("/workshop/files/").content.decode()
    assert "Links that customers signed in with" in said
    answer = owner.post("/workshop/files/clear/", follow=True).content.decode()
    assert "Cleared: " in answer
    assert not part.exists()
    assert not SignInLink.objects.exists()
    assert sign_in("desk").get("/workshop/files/").status_code == 403


def test_what_a_piece_was_before_a_change_goes_with_its_pictures_and_what_it_is_stays(client, product):
    from tests.apps.shop.test_account import FORM

    client.post("/goods/board/basket/", FORM)
    design = Design.objects.get()
    client.post("/goods/board/basket/", {**FORM, "entry-name": "Tern", "design": str(design.pk)})
    before = design.personalization_id
    design.refresh_from_db()
    assert design.personalization_id != before
    age(Personalization.objects.all(), "made_at", 2)
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert Personalization.objects.get().pk == design.personalization_id
    kept = Proof.objects.get()
    assert kept.personalization_id == design.personalization_id
    age(StoredFile.objects.all(), "kept_at", 4000)
    clear_old(SYSTEM_ACTOR, timezone.now())
    assert StoredFile.objects.filter(pk=kept.file_id).exists()
