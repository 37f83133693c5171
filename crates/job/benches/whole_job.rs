//! Whole jobs: `cargo bench -p derecho-job`. Figures are in docs/performance.md.

use derecho_job::Job;
use derecho_job::results::cycle as cycle_job;
use derecho_job::results::plan;
use derecho_job::results::sway;
use derecho_job::results::uncertainty;
use derecho_job::results::{never_settled, solve};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

/// What every save computes: a job without links measured, and two full rigs.
#[divan::bench(args = ["lookout truck 4", "supply truck 9", "lookout truck 7"])]
fn a_whole_job(bencher: Bencher<'_, '_>, which: &str) {
    let file = match which {
        "lookout truck 4" => include_str!("../../../demo/lookout-truck-4.derecho.json"),
        "supply truck 9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        _ => include_str!("../../../demo/lookout-truck-7.derecho.json"),
    };
    let job: Job = serde_json::from_str(file).expect("a sound demo job");
    bencher.bench(|| solve(black_box(&job), never_settled));
}

#[divan::bench]
fn ten_thousand_draws(bencher: Bencher<'_, '_>) {
    let text = include_str!("../../../demo/lookout-truck-7.derecho.json");
    let job: Job = serde_json::from_str(text).expect("a sound job");
    bencher.bench(|| uncertainty(black_box(&job)));
}

/// Eight holes (seven of a bracket and none), twelve bars (eleven and the one as found) and
/// three heights, every check on a 21-step sweep. Bars that are alike as bodies share a sweep; of unlike
/// ones each has its own.
#[divan::bench(args = ["alike", "unlike"])]
fn planner_8_holes_12_bars_3_heights(bencher: Bencher<'_, '_>, bars: &str) {
    let text = include_str!("../../../demo/lookout-truck-7.derecho.json");
    let mut value: serde_json::Value = serde_json::from_str(text).expect("JSON");
    let height = |name: &str, offset: &str| serde_json::json!({ "name": name, "offset": offset });
    value["rig"]["heights"] =
        serde_json::json!([height("empty", "0 in"), height("tank", "-1 1/4 in"), height("raised", "2 in")]);
    value["setups"]["found"]["axle_holes"] = serde_json::json!([]);
    let hole = |n: usize| serde_json::json!({ "name": format!("hole {n}"), "up": format!("{n} in") });
    let thick = |n: usize| if bars == "alike" { "32 mm".to_owned() } else { format!("{} mm", 25 + n) };
    let bar = |n: usize| {
        serde_json::json!({
            "name": format!("bar {n}"), "made_min": "28 in", "made_max": "36 in", "outside": thick(n),
        })
    };
    value["bracket"] = serde_json::json!({
        "brackets": [{ "name": "riser", "holes": (1..8).map(hole).collect::<Vec<_>>() }],
        "bars": (1..12).map(bar).collect::<Vec<_>>(),
    });
    let job: Job = serde_json::from_value(value).expect("a sound job");
    bencher.bench(|| plan(black_box(&job)));
}

/// Twelve brackets of twelve holes, twelve unlike bars, twelve drag-link parts, two hundred heights.
#[divan::bench(sample_count = 5)]
fn a_plan_at_the_limits_of_its_lists(bencher: Bencher<'_, '_>) {
    let text = include_str!("../../../demo/lookout-truck-7.derecho.json");
    let mut value: serde_json::Value = serde_json::from_str(text).expect("JSON");
    let twelve = |one: &dyn Fn(usize) -> serde_json::Value| (0..12).map(one).collect::<Vec<_>>();
    let hole = |b: usize| move |h: usize| serde_json::json!({ "name": format!("{h}"), "up": format!("{} mm", 8 * b + h) });
    value["bracket"]["brackets"] = twelve(
        &|b| serde_json::json!({ "name": format!("riser {b}"), "end": "axle", "holes": twelve(&hole(b)) }),
    )
    .into();
    value["bracket"]["bars"] = twelve(&|n| {
        serde_json::json!({ "name": format!("bar {n}"), "made_min": "28 in", "made_max": "36 in",
            "outside": format!("{} mm", 25 + n) })
    })
    .into();
    value["bracket"]["drag_links"] = twelve(&|n| {
        serde_json::json!({ "name": format!("block {n}"), "raises_axle_end": format!("{} mm", 5 * n + 5) })
    })
    .into();
    value["rig"]["heights"] = (0..200)
        .map(|n: i32| serde_json::json!({ "name": format!("height {n}"), "offset": format!("{} mm", f64::from(n - 100) / 4.0) }))
        .collect();
    value["rig"]["driven_height"] = "height 100".into();
    let job: Job = serde_json::from_value(value).expect("a sound job");
    let bytes = serde_json::to_vec(&plan(&job)).expect("JSON").len();
    assert!(bytes < 2_000_000, "{bytes} bytes");
    bencher.bench(|| plan(black_box(&job)));
}

#[divan::bench]
fn a_whole_job_cycled_both_setups(bencher: Bencher<'_, '_>) {
    let text = include_str!("../../../demo/lookout-truck-7.derecho.json");
    let job: Job = serde_json::from_str(text).expect("a sound job");
    bencher.bench(|| cycle_job(black_box(&job)));
}

/// Arms and links over the 41 × 41 envelope, which is solved with it, rates, room, the vehicle in roll,
/// words: a front with rails, shocks and tyres at lock, and a rear that chooses among splined bars.
#[divan::bench(args = ["rails, shocks, tyres at lock", "fifteen splined bars"])]
fn a_whole_job_swayed(bencher: Bencher<'_, '_>, which: &str) {
    let text = if which.starts_with("fifteen") {
        include_str!("../../../demo/relay-wagon-5.derecho.json")
    } else {
        include_str!("../../../demo/lookout-truck-7.derecho.json")
    };
    let job: Job = serde_json::from_str(text).expect("a sound job");
    bencher.bench(|| sway(black_box(&job)));
}
