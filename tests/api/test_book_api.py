"""The book over the wire: bakes written in and found again, what they came to, photos, side by side, tasted blind, and what is learned of them."""

import csv
import io
import json
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import pytest
from jsonschema import validate
from PIL import Image
from sqlalchemy import text

from pancount.demo.weir_house import examples
from pancount.formats.bake_file import bake_schema

NAME = "Cardamom milk buns"


def kept_formula(client, name: str = NAME) -> int:
    """A formula of the demo kitchen under a name of its own, saved."""
    formula, count = next(one for one in examples() if one[0].name == NAME)
    body = {"formula": formula.model_copy(update={"name": name}).model_dump(mode="json"), "count": count.model_dump(mode="json")}
    made = client.post("/api/formulas", json=body).json()
    number = made["head"]["id"]
    saved = client.post(f"/api/formulas/{number}/revisions", json=body | {"version": made["version"], "note": "first"})
    assert saved.status_code in (200, 201), saved.text
    return number


def written(client, formula: int, told: dict | None = None, outcome: dict | None = None, days_ago: float = 3, **more: object) -> dict:
    """A bake written in; the book's entry of it."""
    at = datetime.now(UTC) - timedelta(days=days_ago)
    body = {"id": str(uuid4()), "formula_id": formula, "begun_at": at.isoformat(), "told": told or {}, "outcome": outcome or {}, **more}
    answer = client.post("/api/book/bakes", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()


def ended(client, bake: str) -> None:
    event = {"id": str(uuid4()), "writer": "w", "clock": 1, "at_s": 4e9, "what": {"deed": "ended", "how": "done"}}
    assert client.post(f"/api/bakes/{bake}/events", json={"events": [event]}).status_code == 200


def jpeg(size: tuple[int, int] = (640, 480), colour: str = "peru", **more: object) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "JPEG", **more)
    return out.getvalue()


def photographed(client, bake: str, content: bytes, **query: object):
    return client.post(f"/api/book/bakes/{bake}/photos", content=content, params={"id": str(uuid4()), **query}, headers={"content-type": "application/octet-stream"})


@pytest.fixture(scope="module")
def formula(client) -> int:
    return kept_formula(client, "Lock-keeper’s buns")


class TestWritingIn:
    """A bake that was not at the bench, with as much or as little as is known."""

    def test_nothing_but_when(self, client, formula):
        """A bake of which nothing else is known is in the book, with all that was meant and nothing made up."""
        record = written(client, formula)["record"]
        assert record["status"] == "done"
        assert record["written"] is True
        assert [line["was_g"] for line in record["lines"]] == [None] * len(record["lines"])
        assert (record["bench_loss"]["was"], record["bake_loss"]["was"], record["rise_min"], record["observed"]) == (None, None, None, [])

    def test_all_that_is_known(self, client, formula):
        """Losses, spread, temperatures and times come out of what is told, as they would at the bench."""
        blank = client.get("/api/book/blank", params={"formula_id": formula}).json()
        rise = next(step for step in blank["steps"] if "rise" in step["label"])
        pieces = [77.0, 79.0, 75.0, 77.0]
        told = {"dough_c": 26.0, "dough_g": 1840.0, "pieces": pieces, "steps": [{"task": rise["key"], "minutes": rise["planned_min"] + 30}], "note": "Butter rather soft."}
        record = written(client, formula, told, {"scores": {"Crumb": 4}, "baked_g": 4 * 68.0, "baked_pieces": 4})["record"]
        assert record["divided_g"] == 1840
        assert record["bench_loss"]["was"] == pytest.approx(1 - 1840 / record["mixed_g"])
        # Four pieces of 77 g in the middle; the sample's standard deviation by hand: sqrt((0 + 4 + 4 + 0) / 3).
        assert record["targets"][0]["spread_g"] == pytest.approx((8 / 3) ** 0.5)
        assert record["bake_loss"]["was"] == pytest.approx(1 - 68 / 77)
        assert [(one["what"], one["was_c"]) for one in record["temperatures"]] == [("dough_c", 26.0)]
        assert record["rise_min"] == pytest.approx(rise["planned_min"] + 30, abs=0.1)
        assert [note["says"] for note in record["notes"]] == ["Butter rather soft."]
        assert {one["figure"] for one in record["observed"]} >= {"bench_loss", "bake_loss", "spread_g", "rise"}

    def test_twice_is_once(self, client, formula):
        """What is sent again under its id is one bake, with its first outcome."""
        body = {"id": str(uuid4()), "formula_id": formula, "begun_at": "2026-10-01T06:00:00Z", "outcome": {"words": "Even."}}
        first, second = (client.post("/api/book/bakes", json=body) for _ in range(2))
        assert first.json()["id"] == second.json()["id"]
        assert len(client.get(f"/api/bakes/{body['id']}/events").json()) == 1

    def test_not_over_a_bake_of_the_bench(self, client, formula):
        """What is written in under the id of a bake at the bench is refused, and that goes on."""
        bake = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": formula}).json()["head"]["id"]
        answer = client.post("/api/book/bakes", json={"id": bake, "formula_id": formula, "begun_at": "2026-10-01T06:00:00Z"})
        assert (answer.status_code, client.get(f"/api/bakes/{bake}").json()["bake"]["status"]) == (409, "running")
        ended(client, bake)

    @pytest.mark.parametrize("at", ["2090-01-01T06:00:00Z", "1811-01-01T06:00:00Z"])
    def test_not_in_the_future(self, client, formula, at):
        answer = client.post("/api/book/bakes", json={"id": str(uuid4()), "formula_id": formula, "begun_at": at})
        assert (answer.status_code, answer.json()["errors"][0]["pointer"]) == (422, "/begun_at")

    def test_told_later(self, client, formula):
        """What was forgotten is told afterwards, once however often it is sent; what is told last holds."""
        bake = written(client, formula, {"dough_c": 24.0})["id"]
        later = {"id": str(uuid4()), "told": {"dough_c": 25.5, "dough_g": 1800.0}}
        entries = [client.post(f"/api/book/bakes/{bake}/told", json=later).json() for _ in range(2)]
        assert [one["record"]["dough_c"] for one in entries] == [25.5, 25.5]
        assert len(client.get(f"/api/bakes/{bake}/events").json()) == 4

    def test_what_cannot_be_is_no_loss(self, client, formula):
        """A dough that would have lost more than half is not learned from, and not told as a loss."""
        record = written(client, formula, {"dough_g": 500.0})["record"]
        assert record["bench_loss"]["was"] is None
        assert all(one["figure"] != "bench_loss" for one in record["observed"])


class TestOutcome:
    """What it came to."""

    def test_kept_and_guarded(self, client, formula):
        """A change rests on the version that was read; the same text sent again is no conflict."""
        entry = written(client, formula)
        at = f"/api/book/bakes/{entry['id']}/outcome"
        told = {"scores": {"Crust": 5, "Crumb": 3}, "words": "Shone.", "wrong": "", "next_time": "Two minutes less."}
        first = client.put(at, json={"outcome": told, "version": entry["version"]})
        assert first.json()["version"] == entry["version"] + 1
        assert client.put(at, json={"outcome": told, "version": entry["version"]}).status_code == 200
        other = client.put(at, json={"outcome": told | {"words": "Dull."}, "version": entry["version"]})
        assert (other.status_code, client.get(f"/api/book/bakes/{entry['id']}").json()["entry"]["outcome"]["words"]) == (409, "Shone.")

    @pytest.mark.parametrize("score", [0, 6, 3.5, "good", True])
    def test_scores_go_from_one_to_five(self, client, formula, score):
        entry = written(client, formula)
        answer = client.put(f"/api/book/bakes/{entry['id']}/outcome", json={"outcome": {"scores": {"Crust": score}}, "version": 1})
        assert (answer.status_code, answer.json()["errors"][0]["pointer"]) == (422, "/outcome/scores/Crust")

    def test_under_way_is_not_in_the_book(self, client, formula):
        """A bake comes into the book when it ends; before, it is not there, and is told so."""
        bake = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": formula}).json()["head"]["id"]
        assert client.get(f"/api/book/bakes/{bake}").status_code == 404
        ended(client, bake)
        assert client.get(f"/api/book/bakes/{bake}").json()["entry"]["record"]["status"] == "done"


def test_a_bake_that_cannot_be_read_keeps_no_other_from_the_book(client, formula, engine):
    """One whose beginning is damaged has no record; the book shows all the others, those that end after it too."""
    broken = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": formula}).json()["head"]["id"]
    ended(client, broken)
    own = {"id": broken}
    with engine.begin() as connection:
        connection.execute(text("UPDATE bakes SET begun = jsonb_set(begun, '{formula,was}', begun #> '{formula,stages}') WHERE id = CAST(:id AS uuid)"), own)
    client.app.state.bakes._known.pop(UUID(broken), None)
    after = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": formula}).json()["head"]["id"]
    ended(client, after)
    page = client.get("/api/book")
    assert page.status_code == 200
    found = {one["id"] for one in page.json()["bakes"]}
    assert after in found
    assert broken not in found
    assert client.get("/api/book").json()["more"] is False
    with engine.begin() as connection:
        connection.execute(text("UPDATE bakes SET begun = begun #- '{formula,was}' WHERE id = CAST(:id AS uuid)"), own)


class TestPhotos:
    """Made smaller, upright, stripped, and refused with a sentence."""

    def test_kept_smaller(self, client, formula):
        bake = written(client, formula)["id"]
        photo = photographed(client, bake, jpeg((3200, 2400)), square=True).json()
        assert (photo["width"], photo["height"], photo["square"]) == (1600, 1200, True)
        large, small = (client.get(f"/api/book/photos/{photo['id']}", params={"small": one}) for one in (False, True))
        assert [Image.open(io.BytesIO(one.content)).size for one in (large, small)] == [(1600, 1200), (320, 240)]
        assert "immutable" in large.headers["cache-control"]

    @pytest.mark.parametrize("content", [b"", b"no photo at all", jpeg()[:300], b"GIF89a\x01\x00\x01\x00", b"\x89PNG\r\n\x1a\n" + bytes(40)])
    def test_no_photo(self, client, formula, content):
        answer = photographed(client, written(client, formula)["id"], content)
        assert (answer.status_code, answer.json()["title"]) == (422, "This is no photo")

    def test_caption_is_searched_and_gone_with_its_photo(self, client, formula):
        bake = written(client, formula)["id"]
        photo = photographed(client, bake, jpeg()).json()["id"]
        client.put(f"/api/book/photos/{photo}", json={"caption": "Quincunx crumb", "square": False})
        found = client.get("/api/book", params={"words": "quincunx"}).json()
        assert [one["id"] for one in found["bakes"]] == [bake]
        assert client.delete(f"/api/book/photos/{photo}").status_code == 204
        assert client.get("/api/book", params={"words": "quincunx"}).json()["total"] == 0
        assert client.get(f"/api/book/photos/{photo}").status_code == 404

    def test_twelve_and_no_more(self, client, formula):
        bake = written(client, formula)["id"]
        answers = [photographed(client, bake, jpeg((64, 64))).status_code for _ in range(13)]
        assert answers == [201] * 12 + [409]


@pytest.fixture(scope="module")
def bakes(client, formula) -> int:
    """Two bakes with words in two languages; the formula of the German one."""
    other = kept_formula(client, "Möhren-Brötchen vom Wehr")
    written(client, other, outcome={"words": "Teig süß, 1½ Löffel Öl mehr; Krume schön gleichmäßig.", "scores": {"Crumb": 5}}, days_ago=70)
    written(client, formula, outcome={"words": "Proofed by the ¾ mark; edges scorched.", "scores": {"Crumb": 2}}, days_ago=40)
    return other


class TestFinding:
    """By words in any spelling, by formula, by what is in it, by score, by month."""

    @pytest.mark.parametrize(
        ("words", "finds"),
        [
            ("Brötchen", True), ("brotchen", True), ("Broetchen", True), ("BRÖTCHEN", True), ("Möhr", True), ("suess", True), ("1½", True), ("1 1/2", True), ("1/2 Löffel", False),
            ("Krumen", False), ("krume gleichmaessig", True), ("zebra", False), ("wehr -teig", False), ('"1½ Löffel"', True), ("½", False),
        ],
    )  # fmt: skip
    def test_umlauts_and_fractions(self, client, bakes, words, finds):
        """However a word with an umlaut, or a fraction, is typed, it finds what was written; what is not there is not found."""
        names = [one["name"] for one in client.get("/api/book", params={"words": words}).json()["bakes"]]
        assert ("Möhren-Brötchen vom Wehr" in names) is finds

    def test_in_the_language_of_the_kitchen(self, client, bakes):
        """Words are looked for by the rules of the language that the kitchen writes in: English knows scorch from scorched, German Krumen from Krume."""
        def found(words: str) -> int:
            return client.get("/api/book", params={"words": words}).json()["total"]

        assert (found("scorching"), found("Krumen")) == (1, 0)
        state = client.get("/api/kitchen").json()
        client.put("/api/kitchen", json={"name": state["name"], "version": state["version"], "settings": state["settings"] | {"language": "de"}})
        try:
            assert (found("Krumen"), found("scorching")) == (1, 0)
        finally:
            client.put("/api/kitchen", json={"name": state["name"], "version": state["version"] + 1, "settings": state["settings"]})

    @pytest.mark.parametrize("words", ["'", '"', "a & | !", "\\", "(:*", "<->", "   ", "½", "%s", "a" * 200, "ﬁ 🥯", "--", "-", "²³", "ⅷ", "१२", "a²", "ａｂ"])
    def test_any_words_may_be_typed(self, client, words):
        assert client.get("/api/book", params={"words": words}).status_code == 200

    @pytest.mark.parametrize("asked", [{"words": "a\x00b"}, {"ingredient": "\x00"}, {"month": "2026-13"}, {"least_score": 9}, {"formula_id": 0}])
    def test_what_cannot_be_looked_for(self, client, asked):
        answer = client.get("/api/book", params=asked)
        assert (answer.status_code, answer.json()["errors"][0]["pointer"]) == (422, f"/{next(iter(asked))}")

    def test_by_what_is_told(self, client, bakes):
        def found(**asked: object) -> set[str]:
            return {one["name"] for one in client.get("/api/book", params=asked).json()["bakes"]}

        assert found(formula_id=bakes) == {"Möhren-Brötchen vom Wehr"}
        assert found(formula_id=bakes, ingredient="cardamom, ground") == {"Möhren-Brötchen vom Wehr"}
        assert found(formula_id=bakes, ingredient="saffron") == set()
        assert found(formula_id=bakes, least_score=5) == {"Möhren-Brötchen vom Wehr"}
        month = f"{datetime.now(UTC) - timedelta(days=70):%Y-%m}"
        assert "Möhren-Brötchen vom Wehr" in found(month=month)
        assert found(formula_id=bakes, month="2020-02") == set()
        assert month in {one["month"] for one in client.get("/api/book").json()["months"]}

    def test_points_are_the_same_bakes(self, client, bakes):
        points = client.get("/api/book/points", params={"formula_id": bakes}).json()
        assert [one["numbers"]["score"] for one in points] == [5]


class TestBeside:
    """Side by side, what differs first."""

    def test_rows(self, client, formula):
        blank = client.get("/api/book/blank", params={"formula_id": formula}).json()
        milk = next(line for line in blank["lines"] if line["of"] == "Dough" and line["name"] == "Whole milk")
        one = written(client, formula, {"water_g": 30.0}, {"scores": {"Crumb": 3}})
        other = written(client, formula, {"lines": [{"line": milk["key"], "g": milk["meant_g"]}]}, {"scores": {"Crumb": 5}})
        page = client.get("/api/book/beside", params={"bake": [one["id"], other["id"]]}).json()
        assert [bake["id"] for bake in page["bakes"]] == [one["id"], other["id"]]
        dough = [row for row in page["rows"] if row["part"] == "dough"]
        assert (dough[0]["name"], dough[0]["differs"]) == ("Whole milk", True)
        first, second = (cell["was"] for cell in dough[0]["cells"])
        flour = sum(line["meant_g"] for line in one["record"]["lines"] if line["role"] == "flour" and not line["beside"])
        assert first - second == pytest.approx(100 * 30 / flour, abs=0.01)
        assert all(not row["differs"] for row in dough[1:])
        crumb = next(row for row in page["rows"] if row["name"] == "Crumb")
        assert [cell["was"] for cell in crumb["cells"]] == [3, 5]

    @pytest.mark.parametrize("some", [1, 5])
    def test_two_to_four(self, client, formula, some):
        bakes = [str(uuid4()) for _ in range(some)]
        assert client.get("/api/book/beside", params={"bake": bakes}).status_code == 422


class TestTasting:
    """Nobody is told which is which before it is opened."""

    @pytest.fixture
    def tasting(self, client, formula):
        bakes = [written(client, formula)["id"] for _ in range(2)]
        state = client.post("/api/tastings", json={"id": str(uuid4()), "bakes": bakes}).json()
        return state["id"], bakes

    def test_blind_until_opened(self, client, tasting):
        number, bakes = tasting
        at = f"/api/tastings/{number}"
        for n in range(3):
            told = {"who": f"Taster {n}", "scores": {"A": {"Crumb": 5}, "B": {"Crumb": 2 + n}}, "likes": "A"}
            answer = client.put(f"{at}/tasters/{uuid4()}", json=told)
            assert not any(bake in answer.text for bake in bakes)
        before = client.get(at).json()
        assert (before["tasters"], before["opened"], before["says"], before["sheets"]) == (3, [], None, [])
        opened = client.post(f"{at}/open").json()
        assert {one["bake"] for one in opened["opened"]} == set(bakes)
        means = {one["letter"]: one["means"]["Crumb"] for one in opened["says"]["letters"]}
        assert means == {"A": 5, "B": 3}
        late = client.put(f"{at}/tasters/{uuid4()}", json={"likes": "B"})
        assert late.status_code == 409
        own = next(one["bake"] for one in opened["opened"] if one["letter"] == "A")
        told = client.get(f"/api/book/bakes/{own}").json()["tastings"]
        assert [(one["letter"], one["score"], one["liked"]) for one in told] == [("A", 5, 3)]

    def test_not_opened_by_mistake(self, client, tasting):
        assert client.post(f"/api/tastings/{tasting[0]}/open").status_code == 409

    def test_letters_are_drawn(self, client, formula):
        """Of twelve tastings of the same two, each is A at times (all alike once in 2 048)."""
        bakes = [written(client, formula)["id"] for _ in range(2)]
        firsts = set()
        for _ in range(12):
            number = client.post("/api/tastings", json={"id": str(uuid4()), "bakes": bakes}).json()["id"]
            client.put(f"/api/tastings/{number}/tasters/{uuid4()}", json={"likes": "A"})
            firsts.add(client.post(f"/api/tastings/{number}/open").json()["opened"][0]["bake"])
        assert firsts == set(bakes)


@pytest.fixture(scope="module")
def baked(client) -> int:
    """Six bakes that lose 14 % in the heat, where 11 stood in."""
    number = kept_formula(client, "Weir buns that lose much")
    for n in range(6):
        written(client, number, {"pieces": [77.0, 78.0, 76.0, 77.0], "dough_g": 1820.0}, {"baked_g": 77 * 0.86 + 0.1 * n, "baked_pieces": 1}, days_ago=20 - n)
    return number


class TestLearning:
    """Offered, taken, used wherever the usual stood in, given back."""

    def figure(self, client, number: int, name: str) -> dict:
        page = client.get("/api/book/learned", params={"formula_id": number}).json()
        return next(one for one in (*page["formula"], *page["kitchen"]) if one["figure"] == name)

    def losses(self, client, number: int) -> dict:
        state = client.get(f"/api/formulas/{number}").json()
        whole = client.post("/api/reckon/count", json={"formula": state["formula"], "count": state["count"]}).json()
        return whole["count"]["quantities"]

    def test_taken_and_given_back(self, client, baked):
        """The count goes by the figure once it is taken, and by the usual once it is given back."""
        before = self.losses(client, baked)["bake_loss.0"]
        figure = self.figure(client, baked, "bake_loss")
        assert (figure["bakes"], figure["in_use"], figure["taken"]) == (6, pytest.approx(before["value"]), None)
        assert before["value"] < figure["low"] < 0.138 < figure["high"] < 0.145
        asked = {"formula_id": baked, "figure": figure["key"]}
        client.post("/api/book/learned/take", json=asked)
        after = self.losses(client, baked)["bake_loss.0"]
        assert (after["source"], after["value"]) == ("learned", pytest.approx(figure["usual"], abs=1e-6))
        client.post("/api/book/learned/give-back", json=asked)
        assert self.losses(client, baked)["bake_loss.0"] == before

    def test_the_desk_keeps_no_copy(self, client, baked):
        """What was taken stands beside the formula: keeping the desk as it was read neither drops nor doubles it, and the same text is no conflict."""
        figure = self.figure(client, baked, "bake_loss")
        client.post("/api/book/learned/take", json={"formula_id": baked, "figure": figure["key"]})
        state = client.get(f"/api/formulas/{baked}").json()
        body = {"formula": state["formula"], "count": state["count"] | {"learned": []}, "version": state["version"]}
        kept = client.put(f"/api/formulas/{baked}/desk", json=body)
        assert [one["figure"] for one in kept.json()["count"]["learned"]] == ["bake_loss"]
        assert client.put(f"/api/formulas/{baked}/desk", json=body).status_code == 200
        client.post("/api/book/learned/give-back", json={"formula_id": baked, "figure": figure["key"]})

    def test_left_out_with_a_reason(self, client, baked):
        figure = self.figure(client, baked, "bake_loss")
        bake = figure["said"][0]["bake"]
        client.put(f"/api/book/bakes/{bake}/left-out", json={"figure": figure["key"], "reason": "weighed hot"})
        fewer = self.figure(client, baked, "bake_loss")
        assert (fewer["bakes"], fewer["said"][0]["why"], fewer["said"][0]["counts"]) == (5, "Left out: weighed hot", False)
        client.put(f"/api/book/bakes/{bake}/left-out", json={"figure": figure["key"], "reason": ""})
        assert self.figure(client, baked, "bake_loss")["bakes"] == 6

    def test_of_the_kitchen(self, client, baked):
        """How evenly one divides goes into the kit, where labels reckon with it, and what stood there comes back."""
        before = client.get("/api/kitchen").json()["settings"]["kit"]["spread_g"]
        figure = self.figure(client, baked, "spread_g")
        asked = {"figure": figure["key"]}
        for _ in range(2):
            client.post("/api/book/learned/take", json=asked)
        assert client.get("/api/kitchen").json()["settings"]["kit"]["spread_g"] == pytest.approx(figure["usual"], abs=1e-6)
        client.post("/api/book/learned/give-back", json=asked)
        assert client.get("/api/kitchen").json()["settings"]["kit"]["spread_g"] == before

    def test_a_bake_keeps_what_it_was_begun_with(self, client, baked):
        """A bake that was begun with a learned loss keeps it, whatever is given back afterwards."""
        figure = self.figure(client, baked, "bench_loss")
        asked = {"formula_id": baked, "figure": figure["key"]}
        client.post("/api/book/learned/take", json=asked)
        record = written(client, baked, days_ago=1)["record"]
        client.post("/api/book/learned/give-back", json=asked)
        assert record["bench_loss"]["meant"] == pytest.approx(figure["usual"], abs=1e-6)
        assert client.get(f"/api/formulas/{baked}").json()["count"]["learned"] == []

    def test_baked_again_it_goes_by_what_is_taken_now(self, client, baked):
        """A bake begun like an earlier one has that one's recipe, and the kitchen's figures as they are today."""
        earlier = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": baked}).json()
        figure = self.figure(client, baked, "bench_loss")
        asked = {"formula_id": baked, "figure": figure["key"]}
        client.post("/api/book/learned/take", json=asked)
        again = client.post("/api/bakes", json={"id": str(uuid4()), "again": earlier["head"]["id"]}).json()
        client.post("/api/book/learned/give-back", json=asked)
        losses = [one["bake"]["dough"]["planned_loss"] for one in (earlier, again)]
        assert losses[1] == pytest.approx(figure["usual"], abs=1e-6) != losses[0]
        for one in (earlier, again):
            ended(client, one["head"]["id"])

    def test_a_file_tells_nothing_of_the_kitchen(self, client, baked):
        """What was learned stays in this kitchen: a formula that goes out does not have it."""
        figure = self.figure(client, baked, "bench_loss")
        asked = {"formula_id": baked, "figure": figure["key"]}
        client.post("/api/book/learned/take", json=asked)
        file = client.get(f"/api/formulas/{baked}/formula.json").json()
        client.post("/api/book/learned/give-back", json=asked)
        assert "learned" not in file["count"]

    def test_left_out_of_so_many_and_no_more(self, client, formula):
        bake = written(client, formula)["id"]
        answers = {client.put(f"/api/book/bakes/{bake}/left-out", json={"figure": f"rise:{n}:", "reason": "x"}).status_code for n in range(200)}
        full = client.put(f"/api/book/bakes/{bake}/left-out", json={"figure": "one too many", "reason": "x"})
        assert (answers, full.status_code) == ({204}, 409)

    def test_no_such_figure(self, client, baked):
        assert client.post("/api/book/learned/take", json={"formula_id": baked, "figure": "rise:nothing:"}).status_code == 404


class TestHabit:
    """What was done the same way at the last bakes is offered as the next revision."""

    def test_water(self, client):
        number = kept_formula(client, "Buns that want more milk")
        for n, g in enumerate((20.0, 30.0, 25.0, 22.0)):
            entry = written(client, number, {"water_g": g}, days_ago=9 - n)
        habit = client.get(f"/api/book/bakes/{entry['id']}").json()["habit"]
        assert habit["says"].startswith("In the last 4 you added 20 to 30 g of water: whole milk 34 → ")
        milk = next(line for line in habit["formula"]["stages"][1]["lines"] if line["name"] == "Whole milk")
        flour = sum(line["meant_g"] for line in entry["record"]["lines"] if line["role"] == "flour" and not line["beside"])
        # By hand: 97 g over four bakes, over the flour of one, to a tenth of a percent.
        assert milk["percent"] == pytest.approx(34 + round(100 * 97 / 4 / flour, 1))


class TestOut:
    """One bake or all, as JSON by the schema and as tables; a card on paper."""

    def test_json_by_the_schema(self, client, formula):
        with open("docs/bake.schema.json") as file:
            schema = json.load(file)
        assert schema == bake_schema()
        one = client.get(f"/api/book/bakes/{written(client, formula)['id']}/bake.json")
        validate(one.json(), schema)
        every = client.get("/api/book/bakes.json")
        validate(every.json(), schema)
        assert len(every.json()["bakes"]) == client.get("/api/book").json()["total"]

    def test_tables(self, client, formula):
        entry = written(client, formula, {"dough_c": 25.0}, {"words": "=1+1", "scores": {"Crumb": 4}})
        rows = list(csv.DictReader(io.StringIO(client.get(f"/api/book/bakes/{entry['id']}/bake.csv").text)))
        assert {row["name"] for row in rows if row["part"] == "line"} >= {"Bread flour", "Whole milk"}
        assert next(row["says"] for row in rows if row["name"] == "words") == "'=1+1"
        every = list(csv.DictReader(io.StringIO(client.get("/api/book/bakes.csv").text)))
        own = next(row for row in every if row["id"] == entry["id"])
        assert (own["Crumb"], own["dough_c"], own["name"]) == ("4", "25", "Lock-keeper’s buns")

    def test_card(self, client, formula):
        entry = written(client, formula, {"pieces": [77.0, 78.0]}, {"words": "Even, ½ shade pale."})
        photographed(client, entry["id"], jpeg((900, 600)), square=True)
        for paper in ("A4", "Letter", "roll"):
            card = client.get(f"/api/book/bakes/{entry['id']}/card.pdf", params={"paper": paper})
            assert card.content.startswith(b"%PDF")
            assert len(card.content) > 5_000
