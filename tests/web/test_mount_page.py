"""The mount at its station: straps put over, loads read, remedies applied; a vehicle measured and shared; the way in."""

from typing import Any

from keel.design.document import Design
from server.jobs.models import Job, TankDesign
from server.mount.models import WaySearch
from server.mount.tasks import search_way
from server.tests.helpers import person
from server.workshop.models import MeasuredVehicle
from tests.web.person import AtThePage

PANEL = "aside"
ROOM = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 500.0}
OPENING = {"side": "roof", "a_mm": 10.0, "b_mm": 10.0, "long_mm": 880.0, "wide_mm": 480.0}
SHELL = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "x_mm": 50.0, "y_mm": 50.0, "z_mm": 20.0}
FILLER: dict[str, Any] = {"id": "neck", "name": "filler neck", "role": "filler", "x_mm": 400.0, "y_mm": 200.0}
FILLER |= {"stands_mm": 40.0, "across_mm": 60.0}


STRAPS = [
    {
        "id": f"strap-{number}",
        "name": f"strap {number}",
        "at_mm": at,
        "low": {"out_mm": 25.0, "z_mm": 0.0},
        "high": {"out_mm": 475.0, "z_mm": 0.0},
    }
    for number, at in ((1, 250.0), (2, 650.0))
]


class AtTheMount(AtThePage):
    """A box in a bay with an opening."""

    document: dict[str, Any] = {"bay": ROOM | {"opening": OPENING}, "shell": SHELL, "ports": [FILLER]}
    drawn = False

    def mount(self) -> dict[str, Any]:
        """What is kept of it."""
        return dict(self.saved()["mount"])

    def strapped(self) -> None:
        """Two straps over the tank and nothing else."""
        design = Design.model_validate(self.document | {"mount": {"straps": STRAPS}})
        self.tank.save_revision(design, self.maker, self.tank.revision)
        self.open_station("mount")
        self.until(lambda: self.do("count", "[data-mount]") == 2, "two straps")


class Straps(AtTheMount):
    """From nothing to a tank that is held every way."""

    def test_ways_are_compared_and_one_is_taken(self) -> None:
        """All six with their figures, the favoured one first; what is taken holds every way and is marked."""
        self.open_station("mount")
        self.until(lambda: self.do("count", "[data-way-to-hold]") == 6, "six ways")
        self.shows("The figures favour it", "[data-way-to-hold]")
        self.shows("240 mm of weld on the tank", "[data-way-to-hold^=Four]")
        self.do("clicked", "[data-way-to-hold^=Cage]")
        self.until(lambda: len(self.mount()["bearers"]) == 4, "a cage")
        self.until(lambda: self.do("count", "[data-mount]"), "its loads")
        self.assertFalse(self.do("count", "[data-finding^='mount.unheld']"))
        self.until(lambda: self.do("count", "[data-way-to-hold^=Cage][aria-pressed=true]"), "marked")
        self.do("clicked", "[data-way-to-hold^=Straps]")
        self.until(lambda: not self.mount()["bearers"] and len(self.mount()["straps"]) == 2, "straps instead")
        self.press("Undo")
        self.until(lambda: len(self.mount()["bearers"]) == 4, "the cage again")

    def test_held_every_way_by_what_is_offered(self) -> None:
        self.strapped()
        for side in ("front end", "rear end", "left side", "right side"):
            before = len(self.mount()["stops"])
            self.until(lambda: self.do("count", "[data-finding^='mount.unheld'] button"), f"remedy for the {side}")
            self.press("Apply", "[data-finding^='mount.unheld']")
            self.until(lambda had=before: len(self.mount()["stops"]) > had, f"a stop at the {side}")
        self.until(lambda: not self.do("count", "[data-finding^='mount.unheld']"), "held every way")
        self.do("clicked", "[aria-label='Load direction'] button[value=forward]")
        self.until(lambda: "front stop" in self.text("[data-carried=forward]"), "who carries it")

    def test_a_strap_is_typed_and_says_what_it_is_cut_to(self) -> None:
        self.strapped()
        self.do("clicked", "[data-row=strap-1] button")
        self.until(lambda: self.do("count", "[data-cut=strap-1]"), "its cut length")
        before = self.text("[data-cut=strap-1]")
        self.type_into("Station, from the bay’s rear", "300", PANEL)
        self.type_into("Pad thickness", "12", PANEL)
        self.until(lambda: self.text("[data-cut=strap-1]") != before, "another length")
        kept = self.mount()["straps"][0]
        self.assertEqual((kept["at_mm"], kept["pad_mm"]), (300, 12))
        self.choose("Bolt size", "M10", PANEL)
        self.until(lambda: self.mount()["straps"][0]["low"]["bolts"]["size"] == "M10", "a larger bolt")
        self.assertEqual(self.mount()["straps"][0]["high"]["bolts"]["size"], "M8")
        self.press("Remove strap 1", PANEL)
        self.until(lambda: len(self.mount()["straps"]) == 1, "one strap")
        self.press("Undo")
        self.until(lambda: len(self.mount()["straps"]) == 2, "both again")

    def test_a_rule_cards_loads_are_typed(self) -> None:
        self.strapped()
        self.choose("Loads for", "rule card", PANEL)
        self.type_into("Forward", "25", PANEL)
        self.until(lambda: self.mount()["loads"]["forward_g"] == 25, "typed")
        self.until(lambda: "25" in self.text("[data-finding^='mount.unheld']"), "counted")

    def test_feet_and_stops_begin_at_the_tank(self) -> None:
        self.open_station("mount")
        self.press("Add a foot", PANEL)
        self.press("Add a stop", PANEL)
        self.until(lambda: self.mount()["feet"] and self.mount()["stops"], "both")
        foot, stop = self.mount()["feet"][0], self.mount()["stops"][0]
        self.assertEqual((foot["x_mm"], stop["side"]), (50 - 17 - 25, "front"))
        self.assertEqual(stop["x_mm"], 850 + 5)
        self.assertFalse(self.do("count", "[data-finding^='mount.stop']"))

    def test_a_stop_that_stands_off_or_is_pushed_over(self) -> None:
        self.open_station("mount")
        self.press("Add a stop", PANEL)
        self.until(lambda: self.mount()["stops"], "a stop")
        self.type_into("From the bay’s rear", "900", PANEL)
        self.shows("front stop stands 50 mm off the tank, its pad is 5 mm", "[data-finding^='mount.stop']")
        self.press("Apply", "[data-finding^='mount.stop']")
        self.until(lambda: self.mount()["stops"][0]["x_mm"] == 855, "against the tank")
        self.type_into("Face, height", "250", PANEL)
        self.type_into("Foot, length", "10", PANEL)
        self.shows("front stop", "[data-finding^='mount.weak']")
        self.shows("Every weak link of front stop at once", "[data-finding^='mount.weak']")
        self.press("Apply", "[data-finding^='mount.weak']")
        self.until(lambda: not self.do("count", "[data-finding^='mount.weak']"), "strong enough")
        self.assertGreater(self.mount()["stops"][0]["base_mm"], 100)

    def test_a_filler_through_the_body(self) -> None:
        self.open_station("mount")
        self.press("Fill it through an opening in the body", PANEL)
        self.until(lambda: self.do("count", "[data-filler=neck]"), "its figures")
        self.shows("Fill hose", "[data-filler=neck]")
        self.type_into("Hose overlap, each end", "10", PANEL)
        self.until(lambda: self.do("count", "[data-finding^='filler.overlap']"), "too short an overlap")
        self.press("Apply", "[data-finding^='filler.overlap']")
        self.until(lambda: self.mount()["filler"]["overlap_mm"] == 25, "as long as the rule says")

    def test_who_stands_on_it_and_what_is_cut_for_it(self) -> None:
        self.strapped()
        self.type_into("Somebody leans, sits or stands on it", "90", PANEL)
        self.until(lambda: self.do("count", "[data-leaned=person]"), "what the lid bears")
        self.press("Add a cut in the vehicle’s structure", PANEL)
        self.until(lambda: self.do("count", "[data-finding^='mount.cut']"), "a stop")
        self.type_into("Reinforcement", "doubler plate", PANEL)
        self.until(lambda: not self.do("count", "[data-finding^='mount.cut']"), "made good")


    def test_a_cradle_and_a_cage(self) -> None:
        self.open_station("mount")
        self.press("Add a bearer", PANEL)
        self.press("Add a bearer", PANEL)
        self.until(lambda: len(self.mount()["bearers"]) == 2, "two bearers")
        kept = self.mount()["bearers"]
        self.assertLess(kept[0]["at_mm"], kept[1]["at_mm"])
        self.choose("Side of the tank", "over", PANEL)
        self.until(lambda: self.mount()["bearers"][1]["stands"] == "over", "a bar of a cage")
        self.type_into("Wall", "40", PANEL)
        self.shows("more than half", PANEL)

    def test_straps_that_differ_say_which_is_longer(self) -> None:
        self.strapped()
        self.assertFalse(self.do("count", "[data-longest]"))
        self.do("clicked", "[data-row=strap-2] button")
        self.type_into("Height of the bolt", "-120", PANEL)
        self.until(lambda: self.do("count", "[data-longest=strap-2]"), "which is longer")
        self.shows("strap 2 is", "[data-longest=strap-2]")

    def test_a_later_hole_is_moved_off_a_seam(self) -> None:
        self.open_station("mount")
        self.press("Add a hole or bend in the finished tank", PANEL)
        self.until(lambda: self.mount()["new_work"], "a hole")
        self.type_into("From the bay’s rear", "60", PANEL)
        self.until(lambda: self.mount()["new_work"][0]["x_mm"] == 60, "typed")
        self.assertEqual(self.mount()["new_work"][0]["z_mm"], 370.0, "on the roof, not over the filler")
        self.until(lambda: self.do("count", "[data-finding^='mount.near_seam']"), "beside the rear seam")
        self.until(lambda: self.do("count", "[data-finding^='mount.near_seam'] button"), "its remedy")
        self.press("Apply", "[data-finding^='mount.near_seam']")
        self.until(lambda: self.mount()["new_work"][0]["x_mm"] > 75, "further on")

    def test_brackets_and_who_may_change_them(self) -> None:
        self.open_station("mount")
        self.press("Add a bracket on the tank", PANEL)
        self.until(lambda: self.mount()["brackets"], "a bracket")
        self.until(lambda: self.do("count", "[data-leaned^=bracket]"), "what its side bears")
        self.type_into("Mass it carries", "12", PANEL)
        self.until(lambda: self.mount()["brackets"][0]["kg"] == 12, "heavier")
        self.sign_in(person("looker", "viewer", self.workshop))
        self.open(f"/designs/{self.tank.pk}/mount")
        self.shows("Add a strap", PANEL)
        self.assertFalse(self.do("isEnabled", "Add a strap", PANEL))
        self.assertFalse(self.do("isEnabled", "Add a vehicle", PANEL))

    def test_in_inches_all_of_it(self) -> None:
        self.maker.units = "in_usgal"
        self.maker.save(update_fields=["units"])
        self.strapped()
        self.shows("lbf", "[aria-label='Load direction']")
        self.shows("lb", "[data-mass]")
        self.do("clicked", "[data-row=strap-1] button")
        self.until(lambda: '"' in self.text("[data-cut=strap-1]"), "inches")
        self.type_into("Pad thickness", "1/4", PANEL)
        self.until(lambda: abs(self.mount()["straps"][0]["pad_mm"] - 6.35) < 1e-9, "a quarter inch")


class Vehicles(AtTheMount):
    """Measured at one job, there at the next."""

    def test_measured_here_and_shared_with_another_job(self) -> None:
        self.open_station("mount")
        self.press("Add a vehicle", PANEL)
        self.until(lambda: self.mount()["vehicle"], "its key")
        self.type_into("Wheelbase", "2650", PANEL)
        self.type_into("Ground height", "-120", PANEL)
        kept = MeasuredVehicle.objects.get()
        self.until(lambda: kept.refresh_from_db() or kept.document_json["ground_mm"] == -120, "measured")
        self.assertEqual(kept.document_json["wheelbase_mm"], 2650)
        self.press("Add a vehicle part", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["parts"], "a part")
        other = Job.opened(self.workshop, title="The next one")
        design = TankDesign.started(other, "Main", self.tank.current().design(), self.maker, "")
        self.open(f"/designs/{design.pk}/mount")
        self.until(lambda: f"Shared by jobs {self.job.number}, {other.number}" in self.text(PANEL), "shared")

    def test_panels_with_gaps_and_what_moves(self) -> None:
        self.open_station("mount")
        self.press("Add a vehicle", PANEL)
        self.until(lambda: self.mount()["vehicle"], "its key")
        kept = MeasuredVehicle.objects.get()
        self.press("Add a panel", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["panels"], "a panel")
        self.tick("Fitted after the tank", PANEL)
        self.press("Add a gap in it", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["panels"][0]["gaps"], "a gap")
        self.tick("gap 1 is sealed", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["panels"][0]["gaps"][0]["sealed"], "sealed")
        self.assertTrue(kept.document_json["panels"][0]["closes"])
        self.press("Add a vehicle part", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["parts"], "a part")
        self.choose("Kind", "moving part", PANEL)
        self.type_into("Travel forward", "-130", PANEL)
        self.until(lambda: kept.refresh_from_db() or kept.document_json["parts"][0]["travel_x_mm"] == -130, "travel")
        self.press("Remove part", PANEL)
        self.until(lambda: kept.refresh_from_db() or not kept.document_json["parts"], "gone")

    def test_wheel_loads_that_do_not_add_up_are_kept_and_said(self) -> None:
        self.open_station("mount")
        self.press("Add a vehicle", PANEL)
        self.until(lambda: self.mount()["vehicle"], "its key")
        for load in ("front left", "front right", "rear left", "rear right"):
            self.type_into(f"Load {load}", "250", PANEL)
            self.until(lambda at=load: "250" in self.value(f"Load {at}", PANEL), load)
        kept = MeasuredVehicle.objects.get()
        self.until(lambda: kept.refresh_from_db() or kept.document_json["rear_right_kg"] == 250, "all four")
        self.type_into("Weighed as a whole", "1300", PANEL)
        self.shows("add up to 1000.00 kg, weighed as a whole 1300.00 kg", "[data-finding^='mount.wheel_loads']")
        self.until(lambda: kept.refresh_from_db() or kept.document_json["whole_kg"] == 1300, "kept as typed")
        for load in ("front left", "front right", "rear left", "rear right"):
            self.type_into(f"Load {load}", "325", PANEL)
        self.until(lambda: not self.do("count", "[data-finding^='mount.wheel_loads']"), "they agree")


class TheWayIn(AtTheMount):
    """Searched, played, stopped."""

    def test_searched_and_shown_as_a_film(self) -> None:
        self.open_station("mount")
        self.press("Show the way in")
        self.press("Search the way in")
        self.until(lambda: self.do("count", "[data-way=running]"), "waiting")
        search_way(WaySearch.objects.get())
        self.until(lambda: self.do("count", "[data-way=done]"), "found")
        self.shows("It goes in", "[data-way=done]")
        self.until(lambda: self.do("count", "[data-frame]") == 1, "a frame")
        self.press("Play")
        self.press("Tightest place")

    def test_an_answer_is_an_old_one_once_something_stands_in_the_way(self) -> None:
        self.strapped()
        self.press("Show the way in")
        self.press("Search the way in")
        self.until(lambda: self.do("count", "[data-way=running]"), "waiting")
        search_way(WaySearch.objects.get())
        self.shows("The straps are off while it goes in", "[data-way=done]")
        self.press("Add a bearer", PANEL)
        self.choose("Side of the tank", "over", PANEL)
        self.shows("The tank has changed: search again")
        self.until(lambda: self.mount()["bearers"][0]["stands"] == "over", "kept")
        self.press("The tank has changed: search again")
        self.until(lambda: self.do("count", "[data-way=running]"), "waiting")
        search_way(WaySearch.objects.latest("pk"))
        self.shows("with bearer off", "[data-way=done]")

    def test_stopped(self) -> None:
        self.open_station("mount")
        self.press("Show the way in")
        self.press("Search the way in")
        self.press("Stop")
        self.until(lambda: self.do("count", "[data-way=cancelled]"), "stopped")
        self.shows("Stopped before it was done", "[data-way=cancelled]")

    def test_without_an_opening_it_says_what_to_do(self) -> None:
        document = self.tank.current().document | {"bay": ROOM}
        bare = TankDesign.started(self.job, "Bare", type(self.tank.current().design()).model_validate(document), self.maker, "")
        self.open(f"/designs/{bare.pk}/mount")
        self.press("Show the way in")
        self.shows("give the bay its opening")
