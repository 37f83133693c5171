//! Turns, flats, engagement and range, worked by hand.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::{
    Adjuster, AdjusterKind, EndStyle, ThreadSeat, ThreadedEnd, Verdict, setting, sleeve_turns,
};
use derecho_core::fastener::{Hand, Thread};
use derecho_core::measure::Length;

fn inches(value: f64) -> Length {
    Length::from_inches(value)
}

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn end(thread: &str, hand: Hand, engagement: f64) -> ThreadedEnd {
    ThreadedEnd {
        thread: Thread::parse(thread).unwrap(),
        hand: Some(hand),
        engagement: Some(inches(engagement)),
        shank: None,
        tapped_depth: None,
        seat: ThreadSeat::Steel,
        witness: None,
    }
}

fn turnbuckle(first: ThreadedEnd, second: ThreadedEnd) -> Adjuster {
    Adjuster {
        kind: AdjusterKind::Turnbuckle,
        first: Some(first),
        second: Some(second),
        end_style: EndStyle::ThroughBolt,
        made_min: None,
        made_max: None,
    }
}

fn twelves(engagement: f64) -> Adjuster {
    turnbuckle(end("1-1/4-12", Hand::Right, engagement), end("1-1/4-12", Hand::Left, engagement))
}

#[test]
fn the_worked_example_three_turns_less_a_touch() {
    // √1056 − 32 = 0.496154 in over 1/6 in a turn.
    let set = setting(&twelves(2.0), inches(32.0), inches(1056.0_f64.sqrt()));
    assert_eq!(set.verdict, Verdict::Fits);
    assert!((set.per_turn_mm.unwrap().to_inches() - 1.0 / 6.0).abs() < 1e-12);
    assert_eq!(format!("{:.3}", set.exact_turns.unwrap()), "2.977");
    assert_eq!((set.turns, set.flats), (Some(3), Some(0)));
    assert_eq!(set.exactly.unwrap().inches, "3 turns less 0.14 flat");
    // Half an inch is set: 0.0038 in too long, so the leftover is negative.
    assert!((set.leftover_mm.unwrap().to_inches() + 0.003_845_6).abs() < 1e-6);
    // Each end came out 3 turns of 1/12 in: 1.75 in stays in, 1.25 in (one diameter) is enough.
    for after in &set.ends {
        assert!((after.engagement_after_mm.unwrap().to_inches() - 1.75).abs() < 1e-9);
        assert!((after.least_engagement_mm.to_inches() - 1.25).abs() < 1e-9);
    }
}

#[test]
fn the_same_hand_takes_pitches_from_each_other() {
    let bar = turnbuckle(end("1-12", Hand::Right, 2.0), end("1-14", Hand::Right, 2.0));
    let set = setting(&bar, inches(30.0), inches(30.0 + 2.0 / 84.0));
    // 1/12 − 1/14 = 1/84 in a turn: two turns.
    assert_eq!((set.turns, set.flats), (Some(2), Some(0)));
    // The coarse end comes out 1/6 in, the fine one goes in 1/7 in.
    let after: Vec<f64> = set.ends.iter().map(|e| e.engagement_after_mm.unwrap().to_inches()).collect();
    assert!((after[0] - (2.0 - 1.0 / 6.0)).abs() < 1e-9);
    assert!((after[1] - (2.0 + 1.0 / 7.0)).abs() < 1e-9);
}

#[test]
fn hands_and_threads_are_asked_for() {
    let mut bar = twelves(2.0);
    bar.second.as_mut().unwrap().hand = None;
    assert_eq!(setting(&bar, inches(32.0), inches(32.5)).verdict, Verdict::HandsMissing);
    bar.second = None;
    assert_eq!(setting(&bar, inches(32.0), inches(32.5)).verdict, Verdict::ThreadMissing);
    let same = turnbuckle(end("1-12", Hand::Left, 2.0), end("1-12", Hand::Left, 2.0));
    assert_eq!(setting(&same, inches(32.0), inches(32.5)).verdict, Verdict::TurningDoesNothing);
}

#[test]
fn a_one_end_bar_goes_in_half_turns_and_a_ball_stud_in_flats() {
    let mut bar = Adjuster {
        kind: AdjusterKind::OneEnd,
        second: None,
        first: Some(end("M24x2", Hand::Right, 2.0)),
        ..twelves(2.0)
    };
    let wanted = mm(803.3);
    // 3.3 mm at 1 mm a half turn: three half turns, 0.3 mm still too short.
    let bolted = setting(&bar, mm(800.0), wanted);
    assert_eq!((bolted.turns, bolted.flats), (Some(1), Some(3)));
    assert!((bolted.leftover_mm.unwrap().to_mm() - 0.3).abs() < 1e-9);
    // 2/6 mm a flat: 9.9 flats, so ten: 3.333 mm.
    bar.end_style = EndStyle::BallStud;
    let stud = setting(&bar, mm(800.0), wanted);
    assert_eq!((stud.turns, stud.flats), (Some(1), Some(4)));
    assert!((stud.leftover_mm.unwrap().to_mm() + 0.0333).abs() < 1e-3);
}

#[test]
fn too_little_thread_is_refused_and_the_longest_is_where_the_first_end_runs_out() {
    let mut bar = twelves(1.5);
    bar.second.as_mut().unwrap().engagement = Some(inches(1.75));
    // The first end may come out 1/4 in, that is three turns: 1/2 in of length.
    let set = setting(&bar, inches(32.0), inches(33.0));
    assert_eq!(set.verdict, Verdict::TooLittleThread);
    assert!((set.longest_mm.unwrap().to_inches() - 32.5).abs() < 1e-9);
    assert_eq!(setting(&bar, inches(32.0), inches(32.5)).verdict, Verdict::Fits);
}

#[test]
fn the_seat_and_the_witness_mark_decide_how_much_must_stay_in() {
    let least = |seat, witness: Option<f64>| {
        ThreadedEnd { seat, witness: witness.map(mm), ..end("1-1/4-12", Hand::Right, 2.0) }
            .least_engagement()
            .to_inches()
    };
    assert!((least(ThreadSeat::Steel, None) - 1.25).abs() < 1e-9);
    assert!((least(ThreadSeat::WeldedAdapter, None) - 1.875).abs() < 1e-9);
    assert!((least(ThreadSeat::Aluminium, None) - 2.5).abs() < 1e-9);
    assert!((least(ThreadSeat::Aluminium, Some(30.0)) - 30.0 / 25.4).abs() < 1e-9);
    // A thin thread still keeps an inch.
    assert_eq!(end("M16x1.5", Hand::Right, 2.0).least_engagement(), inches(1.0));
}

#[test]
fn beyond_the_made_range() {
    let mut bar = twelves(3.0);
    bar.made_max = Some(inches(32.25));
    assert_eq!(setting(&bar, inches(32.0), inches(32.5)).verdict, Verdict::BarTooShort);

    bar.made_max = None;
    bar.made_min = Some(inches(31.5));
    for thread in [&mut bar.first, &mut bar.second] {
        let thread = thread.as_mut().unwrap();
        thread.shank = Some(inches(3.5));
        thread.tapped_depth = Some(inches(4.0));
    }
    let set = setting(&bar, inches(32.0), inches(31.0));
    assert_eq!(set.verdict, Verdict::CutBack);
    // Half an inch too long even at its shortest: a quarter off each end.
    assert!((set.cut_each_end_mm.unwrap().to_inches() - 0.25).abs() < 1e-9);
    // Shank tips cut: min(3.5 − 0.25, 4); body faced: min(3.5, 4 − 0.25).
    assert!((set.ends[0].after_cutting_shank_mm.unwrap().to_inches() - 3.25).abs() < 1e-9);
    assert!((set.ends[0].after_facing_body_mm.unwrap().to_inches() - 3.5).abs() < 1e-9);
}

#[test]
fn a_fixed_bar_says_what_length_is_needed() {
    let bar = Adjuster { kind: AdjusterKind::Fixed, first: None, second: None, ..twelves(2.0) };
    let set = setting(&bar, inches(32.0), inches(32.5));
    assert_eq!(set.verdict, Verdict::CannotBeTurned);
    assert!(set.says.inches.contains("32 1/2\""), "{}", set.says.inches);
}

#[test]
fn shortening_is_said_as_turning_in() {
    let set = setting(&twelves(2.0), inches(32.0), inches(32.0 - 0.25));
    assert_eq!(set.turns_say.unwrap().inches, "1 turn and 3 flats in");
    assert_eq!(set.exact_turns.map(|turns| (turns * 1e6).round() / 1e6), Some(-1.5));
    assert!(set.ends.iter().all(|e| e.engagement_after_mm.unwrap() > inches(2.0)));
}

#[test]
fn a_sleeve_cut_both_ways_moves_two_pitches_a_turn() {
    let thread = Thread::parse("1/2-20").unwrap();
    // 1/4 in over 2/20 in to the turn: 2 turns and 3 flats.
    let told = sleeve_turns(&thread, inches(8.0), inches(8.25)).unwrap();
    assert!(told.inches.starts_with("2 turns and 3 flats"), "{}", told.inches);
    // As far back again, the other way.
    let back = sleeve_turns(&thread, inches(8.25), inches(8.0)).unwrap();
    assert!(back.inches.starts_with("2 turns and 3 flats") && back != told, "{}", back.inches);
}
