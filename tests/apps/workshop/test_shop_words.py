"""The shop in the workshop's own words, with its mark and in the languages it offers: kept, tried out first, refused."""

import io
import re
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.outbox.interface import WRITERS
from yenzo.apps.pages.languages import read_in
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.models import Mark, Workshop
from yenzo.apps.workshop.wording import shop_words

pytestmark = pytest.mark.django_db
WORDS, MARK, LANGUAGES = (f"/workshop/settings/{part}/" for part in ("wording", "mark", "languages"))
SHOWN = re.compile(r'src="(/workshop/mark/[0-9a-f]{64}/)"')


def text_of(answer):
    return answer.content.decode()


def a_picture(size=(900, 300), color=(10, 60, 70), kind="PNG"):
    output = io.BytesIO()
    picture = Image.new("RGB", size, "white")
    picture.paste(color, (40, 40, size[0] - 40, size[1] - 40))
    picture.save(output, kind)
    return SimpleUploadedFile(f"mark.{kind.lower()}", output.getvalue())


def a_drawing(inside='<path d="M0 0h64v32H0z" fill="#123456"/>'):
    svg = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 32">{inside}</svg>'
    return SimpleUploadedFile("mark.svg", svg.encode())


@pytest.fixture
def office(sign_in):
    return sign_in("owner")


class TestWords:
    def test_shop_says_them_in_their_language_and_what_ships_in_others(self, office, client):
        assert office.post(f"{WORDS}?language=en-gb", {"headline": "Carved by the sea"}).status_code == 302
        assert "<h1" in text_of(client.get("/"))
        assert "Carved by the sea" in text_of(client.get("/"))
        german = text_of(client.get("/", headers={"Accept-Language": "de"}))
        assert "Carved by the sea" not in german
        office.post(f"{WORDS}?language=de", {"headline": "Am Meer geschnitzt"})
        assert "Am Meer geschnitzt" in text_of(client.get("/", headers={"Accept-Language": "de"}))
        assert "Carved by the sea" in text_of(client.get("/"))

    def test_empty_words_are_those_that_ship_again(self, office, client):
        office.post(WORDS, {"headline": "Carved by the sea"})
        office.post(WORDS, {"headline": "  "})
        assert current_workshop().wording == {}
        assert "Made with your own words" in text_of(client.get("/"))

    def test_page_is_there_once_it_is_written_and_is_linked_from_the_foot(self, office, client):
        assert client.get("/about/terms/").status_code == 404
        assert "shop-foot" not in text_of(client.get("/"))
        office.post(WORDS, {"terms": "First.\n\nSee https://club.example/rules"})
        page = text_of(client.get("/about/terms/"))
        assert page.count("<p>") >= 2
        assert 'href="https://club.example/rules"' in page
        assert 'href="/about/terms/"' in text_of(client.get("/"))
        assert client.get("/about/nonsense/").status_code == 404
        assert client.get("/about/headline/").status_code == 404

    def test_page_in_another_language_is_better_than_none_and_says_so(self, office, client):
        office.post(f"{WORDS}?language=de", {"imprint": "Am Hafen 1"})
        assert re.search(r'lang="de"[^>]*><p>Am Hafen 1', text_of(client.get("/about/imprint/")))
        with read_in("ar"):
            assert shop_words("imprint").language == "de"

    @pytest.mark.parametrize("nasty", ["<script>alert(1)</script>", '"><img src=x onerror=1>'])
    def test_nothing_that_is_typed_becomes_a_part_of_the_page(self, office, client, nasty):
        office.post(WORDS, {"headline": nasty, "introduction": nasty, "foot": nasty, "privacy": nasty})
        for address in ("/", "/about/privacy/"):
            page = text_of(client.get(address))
            assert nasty not in page

    def test_too_long_a_heading_and_letters_that_turn_the_order_are_refused_and_stay_in_the_form(self, office):
        answer = office.post(WORDS, {"headline": "a" * 121, "foot": "hidden \u202e order"})
        assert answer.status_code == 422
        assert "a" * 121 in text_of(answer)
        assert text_of(answer).count('class="problem"') >= 2
        assert not Workshop.objects.exists()

    def test_they_are_looked_at_first_by_staff_only_and_only_there(self, office, client):
        look = office.post(f"{WORDS}?language=de", {"headline": "Am Meer", "do": "try"})
        assert not Workshop.objects.exists()
        assert "Am Meer" in text_of(office.get(look["Location"]))
        assert "Am Meer" not in text_of(office.get("/"))
        assert "Am Meer" not in text_of(client.get(look["Location"]))

    def test_they_stand_above_the_button_that_orders_and_in_the_mail_of_a_paid_order(
        self, office, order, put_in_basket, visitor, browser_of
    ):
        office.post(WORDS, {"before_paying": "No returns.", "thanks": "See you at the quay."})
        browser = browser_of(visitor)
        assert "See you at the quay." not in text_of(browser.get(f"/order/{order.token}/"))
        put_in_basket(visitor)
        assert "No returns." in text_of(browser.get("/checkout/"))
        pay_order(GUEST, order, "approves")
        tell_paid(order.pk)
        assert "See you at the quay." in text_of(browser.get(f"/order/{order.token}/"))
        assert "See you at the quay." in send_mails()[f"{order.number}-paid-customer"].text
        assert "See you at the quay." in WRITERS["order-paid-customer"].write(str(order.pk), "key").html

    @pytest.mark.parametrize("role", ["desk", "decorator"])
    def test_page_is_for_owner_and_seller(self, sign_in, role):
        for address in (WORDS, MARK, LANGUAGES):
            assert sign_in(role).post(address, {"headline": "Mine"}).status_code == 403


class TestMark:
    def test_picture_is_made_small_and_stands_in_the_shops_bar(self, office, client):
        assert office.post(MARK, {"file": a_picture((2400, 800))}).status_code == 302
        address = SHOWN.search(text_of(client.get("/")))[1]
        answer = client.get(address)
        assert answer["Content-Type"] == "image/png"
        assert "immutable" in answer["Cache-Control"]
        with Image.open(io.BytesIO(answer.content)) as shown:
            assert max(shown.size) <= 640
            assert shown.height <= 160

    def test_drawing_stays_one_and_can_do_nothing(self, office, client):
        office.post(MARK, {"file": a_drawing(), "mark_stands_alone": "on"})
        page = text_of(client.get("/"))
        answer = client.get(SHOWN.search(page)[1])
        assert answer["Content-Type"] == "image/svg+xml"
        assert "sandbox" in answer["Content-Security-Policy"]
        assert "#123456" in text_of(answer)
        # It says the name to who can't see it; beside it the name is not said again.
        assert re.search(r'class="shop-name"[^>]*><img[^>]*alt="[^"]+"></a>', page)
        office.post(MARK, {})
        assert re.search(
            r'class="shop-name"[^>]*><img[^>]*alt="[^"]+"><span aria-hidden="true">', text_of(client.get("/"))
        )

    def test_it_is_looked_at_first_and_what_isnt_kept_goes_after_a_day(self, office, client):
        office.post(MARK, {"file": a_drawing()})
        kept = current_workshop().mark_id
        look = office.post(MARK, {"file": a_picture(), "do": "try"})
        assert kept not in text_of(office.get(look["Location"]))
        assert kept in text_of(client.get(look["Location"]))
        office.post(MARK, {"file": a_picture(color=(200, 30, 30)), "do": "try"})
        # Somebody may be about to keep what they look at.
        assert Mark.objects.count() == 3
        Mark.objects.update(made_at=timezone.now() - timedelta(days=2))
        office.post(MARK, {"file": a_picture(color=(30, 200, 30)), "do": "try"})
        assert Mark.objects.filter(pk=kept).exists()
        assert Mark.objects.count() == 2

    def test_it_can_be_taken_away_again(self, office, client):
        office.post(MARK, {"file": a_drawing(), "mark_stands_alone": "on"})
        office.post(MARK, {"without": "on", "mark_stands_alone": "on"})
        page = text_of(client.get("/"))
        assert SHOWN.search(page) is None
        assert "<span>" in page

    @pytest.mark.parametrize(
        "wrong",
        [
            SimpleUploadedFile("mark.png", b""),
            SimpleUploadedFile("mark.png", b"GIF89a" + b"\0" * 50),
            SimpleUploadedFile("mark.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>"),
            SimpleUploadedFile("mark.png", b"\x89PNG\r\n\x1a\n" + b"\0" * 500),
            a_picture(kind="TIFF"),
        ],
        ids=["empty", "gif", "script", "damaged", "tiff"],
    )
    def test_what_cant_be_one_is_refused_in_words(self, office, wrong):
        wrong.seek(0)
        answer = office.post(MARK, {"file": wrong})
        assert answer.status_code == 422
        assert 'class="problem"' in text_of(answer)
        assert not Mark.objects.exists()

    def test_no_mark_but_ours_is_handed_out(self, client):
        assert client.get(f"/workshop/mark/{'0' * 64}/").status_code == 404
        assert client.get("/workshop/mark/x/").status_code == 404


class TestLanguages:
    def test_only_those_offered_are_spoken_and_the_first_to_everybody_else(self, office, client):
        assert office.post(LANGUAGES, {"languages": ["de", "ar"]}).status_code == 302
        for asked, spoken in (("ar", "ar"), ("en", "de"), ("fr", "de"), ("de", "de")):
            assert client.get("/", headers={"Accept-Language": asked})["Content-Language"] == spoken
        page = text_of(client.get("/"))
        assert "العربية" in page
        assert "English" not in page
        # A browser that chose a language that is no longer offered.
        client.cookies["django_language"] = "en-gb"
        assert client.get("/")["Content-Language"] == "de"

    def test_page_goes_on_in_its_language_whatever_is_offered_meanwhile(self, office, client):
        office.post(LANGUAGES, {"languages": ["de"]})
        for told, spoken in (("ar", "ar"), ("fr", "de"), ("<b>", "de")):
            assert client.get("/", headers={"Page-Language": told})["Content-Language"] == spoken

    def test_workshop_stays_english(self, office):
        office.post(LANGUAGES, {"languages": ["ar"]})
        assert 'lang="en' in text_of(office.get("/workshop/settings/"))

    def test_a_shop_of_one_language_offers_no_choice(self, office, client):
        assert 'class="languages"' in text_of(client.get("/"))
        office.post(LANGUAGES, {"languages": ["de"]})
        assert 'class="languages"' not in text_of(client.get("/"))

    @pytest.mark.parametrize("wrong", [[], ["fr"]])
    def test_none_and_one_that_isnt_there_are_refused(self, office, wrong):
        assert office.post(LANGUAGES, {"languages": wrong}).status_code == 422
        assert not Workshop.objects.exists()
