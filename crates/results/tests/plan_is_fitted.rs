//! What the register says of parts and geometry of a plan it says of the same parts once they are on record as installed:
//! of whole vehicles, with every kind of part a job can install.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;
mod vehicles;

use derecho_job::document::{FittedPart, Round};
use derecho_job::findings::FindingKind;
use derecho_job::{Job, Results, check};
use derecho_results::solve;
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};
use vehicles::{as_many, job, mm, vehicle};

/// What is planned: a hole and a bar, a drag-link part, links and their hole, and each of the parts or not.
#[derive(Clone, Debug)]
struct Planned {
    riser: Option<usize>,
    hung: bool,
    drag_link: bool,
    link: Option<f64>,
    hole: bool,
    kind: usize,
    parts: [bool; 4],
}

fn planned() -> impl Strategy<Value = Planned> {
    let link = prop::option::of(130.0..260.0_f64);
    let choices = (prop::option::of(0..2_usize), any::<[bool; 3]>(), link, 0..4_usize, any::<[bool; 4]>());
    choices.prop_map(|(riser, [hung, drag_link, hole], link, kind, parts)| Planned {
        riser,
        hung,
        drag_link,
        link,
        hole,
        kind,
        parts,
    })
}

impl Planned {
    /// Puts it into a vehicle's document.
    fn put(&self, document: &mut Value, location: &str) {
        if location == "y_link" {
            document["to_do"] = json!(["convert_to_y_link"]);
        } else {
            let mut plan = json!({});
            if let Some(hole) = self.riser {
                let named = ["low", "high"][hole];
                plan["axle"] = json!({ "bracket": "riser", "hole": named });
            }
            if self.hung {
                plan["bar"] = json!("straight bar");
            }
            if self.drag_link && document["hardpoints"]["steering"].is_object() {
                document["bracket"]["drag_links"] =
                    json!([{ "name": "raised arm", "raises_axle_end": mm(55.0) }]);
                plan["drag_link"] = json!("raised arm");
            }
            document["setups"]["plans"]["chosen"] = plan;
            // An oil pan that hangs low enough to be met, half of the time.
            if self.hung {
                for end in ["from", "to"] {
                    document["hardpoints"]["obstacles"][0][end]["height"] = mm(700.0);
                }
            }
            document["bracket"]["brace"] =
                json!({ "name": "rail brace", "below_rail": mm(if self.hole { 90.0 } else { 400.0 }) });
        }
        if document["sway"]["kind"] != json!("none") {
            let kinds = ["one_piece", "splined", "two_rate", "powered"];
            document["sway"]["kind"] = json!(kinds[self.kind]);
            document["sway"]["shim"] = mm(6.0);
            document["sway"]["shim_side"] = json!("left");
            document["sway"]["pins"] = json!({ "eye_bore": mm(20.0), "stud": mm(19.0) });
            if self.hole {
                document["setups"]["plans"]["sway"]["hole"] = json!("hole-2");
            }
            if let Some(link) = self.link {
                document["setups"]["plans"]["sway"]["link"] = mm(link);
            }
        }
        let named = ["sway_bar", "disconnect", "brace", "second_shim"];
        let parts: Vec<&str> =
            named.into_iter().zip(self.parts).filter(|(_, planned)| *planned).map(|(part, _)| part).collect();
        document["setups"]["plans"]["parts"] = json!(parts);
    }
}

/// What the register holds of parts and geometry: work, proof and road aside.
fn of_parts_and_geometry(results: &Results) -> Vec<(FindingKind, String, String)> {
    let of_them = |kind| {
        matches!(
            kind,
            FindingKind::TravelEnds
                | FindingKind::ClearanceNotChecked
                | FindingKind::ThreadEngaged
                | FindingKind::LinksFail
                | FindingKind::DoesNotFit
                | FindingKind::Overstressed
                | FindingKind::LinkBesideBar
                | FindingKind::SteersOverBumps
        )
    };
    let found = results.findings.iter().filter(|found| of_them(found.kind));
    found.map(|found| (found.kind, found.key.clone(), found.says.millimetres())).collect()
}

/// Everything of the plan on record as installed, as the program has it ready.
fn record(job: &mut Job, results: &Results) {
    let correction = results.bar.as_ref().and_then(|bar| bar.correction.as_ref());
    let mut round = correction.map_or_else(Round::default, |correction| correction.fitting.clone());
    round.parts = FittedPart::ALL.into_iter().filter(|part| job.installs(*part)).collect();
    let sway = std::mem::take(&mut job.setups.plans.sway);
    (round.sway_link, round.sway_hole) = (sway.link, sway.hole);
    job.setups.record(round);
}

proptest! {
    #![proptest_config(as_many(160))]

    #[test]
    fn what_is_installed_as_planned_is_judged_as_the_plan_was(made in vehicle(), planned in planned()) {
        prop_assume!(!made.later);
        let mut document = made.document.clone();
        planned.put(&mut document, made.location);
        let mut job = job(&document);
        let before = solve(&job);
        let correction = before.bar.as_ref().and_then(|bar| bar.correction.as_ref());
        let reaches = correction.is_none_or(|correction| correction.covered != Some(false));
        prop_assume!(reaches);
        let judged = of_parts_and_geometry(&before);
        record(&mut job, &before);
        prop_assert_eq!(check(&job), []);
        prop_assert!(job.not_installed().is_empty());
        let after = solve(&job);
        prop_assert_eq!(of_parts_and_geometry(&after), judged);
    }
}

/// The judgements that are compared do come up: in so many random vehicles each of most kinds at least once.
#[test]
fn the_vehicles_have_something_to_judge() {
    use proptest::strategy::ValueTree as _;
    use proptest::test_runner::{Config, RngSeed, TestRunner};
    let mut runner = TestRunner::new(Config { rng_seed: RngSeed::Fixed(20_261_130), ..Config::default() });
    let drawn = (vehicle(), planned());
    let mut seen = Vec::new();
    for _ in 0..120 {
        let (made, planned) = drawn.new_tree(&mut runner).unwrap().current();
        let mut document = made.document.clone();
        planned.put(&mut document, made.location);
        seen.extend(of_parts_and_geometry(&solve(&job(&document))).into_iter().map(|(kind, ..)| kind));
    }
    for kind in [
        FindingKind::TravelEnds,
        FindingKind::LinksFail,
        FindingKind::LinkBesideBar,
        FindingKind::SteersOverBumps,
        FindingKind::Overstressed,
    ] {
        assert!(seen.contains(&kind), "{kind:?} never came up, {} others did", seen.len());
    }
}
