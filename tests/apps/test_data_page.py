from tests.scripts.loading import load_script


def test_page_of_the_tables_is_what_the_models_are():
    tables = load_script("tables")
    assert tables.PAGE.read_text() == tables.page(), "make tables"
