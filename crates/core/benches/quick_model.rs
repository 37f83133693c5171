//! The quick model and the tape parser: `cargo bench -p derecho-core`. Figures are in
//! docs/performance.md.

use derecho_core::bar::{FrontView, sweep::sweep};
use derecho_core::measure::centring::{Readings, Sense, centring};
use derecho_core::measure::print::{Style, written};
use derecho_core::measure::tape::{Kind, parse};
use derecho_core::measure::{Length, Side, Unit};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

fn bar() -> FrontView {
    let (length, rise) = (Length::from_inches(32.0), Length::from_inches(6.0));
    FrontView::new(length, rise, Length::ZERO, Side::Left).expect("a sound bar")
}

#[divan::bench]
fn shift_at_one_travel(bencher: Bencher<'_, '_>) {
    let view = bar();
    bencher.bench(|| black_box(&view).shift_at(black_box(Length::from_mm(25.0))));
}

#[divan::bench]
fn length_that_recentres(bencher: Bencher<'_, '_>) {
    let view = bar();
    bencher.bench(|| black_box(&view).recentred(black_box(Length::from_mm(12.0))));
}

#[divan::bench]
fn swing_over_the_travel(bencher: Bencher<'_, '_>) {
    let view = bar();
    bencher.bench(|| black_box(&view).swing(Length::from_mm(110.0), Length::from_mm(90.0)));
}

#[divan::bench]
fn sweep_for_the_screen(bencher: Bencher<'_, '_>) {
    let view = bar();
    let travel = (Length::from_mm(110.0), Length::from_mm(90.0));
    bencher.bench(|| {
        sweep((black_box(&view), Length::ZERO), (&view, Length::ZERO), Length::ZERO, travel.0, travel.1)
    });
}

#[divan::bench(args = ["630", "24 13/16", "2' 3 1/2\"", "24¹³⁄₁₆″", "1,250"])]
fn read_a_tape_number(text: &str) -> bool {
    parse(black_box(text), Unit::Inches, Kind::Distance).is_ok()
}

#[divan::bench(args = [Style::Sixteenths, Style::TenthMillimetres])]
fn print_a_length(style: &Style) -> String {
    written(black_box(Length::from_mm(630.2375)), *style)
}

#[divan::bench]
fn a_sheet_of_eight_readings(bencher: Bencher<'_, '_>) {
    let left = [165.1, 166.7, 165.1, 165.1].map(Length::from_mm);
    let right = [139.7, 139.7, 138.1, 139.7].map(Length::from_mm);
    let readings = Readings {
        left: &left,
        right: &right,
        sense: Sense::Outward,
        feature_uncertainty: Length::from_mm(0.8),
        resolution: Length::from_mm(1.0),
        usual_spread: Length::from_mm(1.0),
        tolerance: Length::from_mm(3.0),
        plumb: None,
        lean: None,
    };
    bencher.bench(|| centring(black_box(&readings)));
}
