//! Turns, flats, engagement and range, worked by hand.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::{
    Adjuster, AdjusterKind, CutFrom, EndStyle, TRIM, ThreadSeat, ThreadedEnd, TurnStep, Verdict, setting,
    setting_within, sleeve,
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
    assert_eq!(format!("{:.2}", set.flats_over.unwrap()), "-0.14");
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
    // An eye that fits one way up goes in whole turns of 2 mm: two, 0.7 mm too long.
    bar.end_style = EndStyle::OneWayUp;
    let whole = setting(&bar, mm(800.0), wanted);
    assert_eq!((whole.turns, whole.flats, whole.turned_by), (Some(2), Some(0), TurnStep::WholeTurn));
    assert!((whole.leftover_mm.unwrap().to_mm() + 0.7).abs() < 1e-9);
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
    // 1/4 in to spare at one end and 1/2 at the other: evened, 3/4 in of length.
    assert!((set.equal_engagement_longest_mm.unwrap().to_inches() - 32.75).abs() < 1e-9);
    let even = setting(&bar, inches(32.0), inches(32.625));
    assert_eq!(even.verdict, Verdict::EvenEnds);
    assert_eq!(even.turns, None, "turning alone does not reach it");
    // 3 1/4 in of thread less 5/8 leaves 2 5/8: half at each end, a sixteenth over the least.
    for end in &even.ends {
        assert!((end.engagement_after_mm.unwrap().to_inches() - 1.3125).abs() < 1e-9);
    }
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
    // Half an inch too long even at its shortest, and a quarter to trim: 3/8 off each end.
    let cut = set.cut.unwrap();
    assert_eq!(TRIM, inches(0.25));
    assert!((cut.each_end_mm.to_inches() - 0.375).abs() < 1e-9);
    // The body is tapped deeper than the shanks are long: their shoulders stop it, so it is faced.
    assert_eq!(cut.from, Some(CutFrom::Body));
    // At the wanted length each end stands 1/8 in out: min(3.5, 4 − 3/8) − 1/8.
    assert!((cut.keeps_mm.unwrap().to_inches() - 3.375).abs() < 1e-9);
    assert_eq!(cut.enough, Some(true));
    // Nothing is promised that the threads do not give, and no end has more in than there is.
    assert_eq!((set.turns, set.flats), (None, None));
    for end in &set.ends {
        assert!(end.engagement_after_mm.unwrap() <= end.full_depth_mm.unwrap());
    }
}

#[test]
fn a_cut_that_leaves_too_little_thread_is_reported() {
    // One inch of shank in a body as deep: the least that must stay in is all there is.
    let bar = |shank: f64| {
        let end = ThreadedEnd {
            shank: Some(inches(shank)),
            tapped_depth: Some(inches(shank)),
            ..end("1-14", Hand::Right, shank)
        };
        Adjuster { kind: AdjusterKind::OneEnd, second: None, first: Some(end), ..twelves(2.0) }
    };
    let short = setting(&bar(1.0), inches(30.0), inches(29.5));
    assert_eq!((short.verdict, short.cut.unwrap().enough), (Verdict::CutBack, Some(false)));
    // As long as deep: tip and face both give 3/4, and 1/4 stands out: 2 1/4 − 1 leaves 1 1/4, of
    // which a quarter may come out again.
    let long = setting(&bar(2.25), inches(30.0), inches(29.5));
    assert_eq!((long.cut.unwrap().ends, long.cut.unwrap().enough), (1, Some(true)));
    assert_eq!(long.cut.unwrap().from, Some(CutFrom::Both));
    assert!((long.cut.unwrap().each_end_mm.to_inches() - 0.75).abs() < 1e-9);
}

#[test]
fn within_the_tolerance_a_bar_is_long_enough() {
    let mut bar = twelves(3.0);
    bar.made_max = Some(inches(32.25));
    let near = setting_within(&bar, inches(32.0), inches(32.3), inches(0.1));
    // The last whole flat inside the made range: nine of 1/36 in are 1/4 in.
    assert_eq!((near.verdict, near.turns, near.flats), (Verdict::Fits, Some(1), Some(3)));
    assert!((near.leftover_mm.unwrap().to_inches() - 0.05).abs() < 1e-9);
    let fixed = Adjuster { kind: AdjusterKind::Fixed, first: None, second: None, ..twelves(2.0) };
    assert_eq!(setting_within(&fixed, inches(32.0), inches(32.06), inches(0.1)).verdict, Verdict::AsItIs);
}

#[test]
fn a_fixed_bar_cannot_be_turned() {
    let bar = Adjuster { kind: AdjusterKind::Fixed, first: None, second: None, ..twelves(2.0) };
    let set = setting(&bar, inches(32.0), inches(32.5));
    assert_eq!(set.verdict, Verdict::CannotBeTurned);
    assert_eq!((set.turns, set.wanted_mm), (None, inches(32.5)));
}

#[test]
fn shortening_turns_in() {
    let set = setting(&twelves(2.0), inches(32.0), inches(32.0 - 0.25));
    assert_eq!((set.turns, set.flats), (Some(1), Some(3)));
    assert_eq!(set.exact_turns.map(|turns| (turns * 1e6).round() / 1e6), Some(-1.5));
    assert!(set.ends.iter().all(|e| e.engagement_after_mm.unwrap() > inches(2.0)));
}

#[test]
fn a_sleeve_cut_both_ways_moves_two_pitches_a_turn() {
    let thread = Thread::parse("1/2-20").unwrap();
    // 1/4 in over 2/20 in to the turn: 2 turns and 3 flats.
    let reported = setting(&sleeve(&thread), inches(8.0), inches(8.25));
    assert_eq!((reported.turns, reported.flats), (Some(2), Some(3)));
    // As far back again, the other way.
    let back = setting(&sleeve(&thread), inches(8.25), inches(8.0));
    assert_eq!((back.turns, back.flats), (Some(2), Some(3)));
    assert!(back.exact_turns.unwrap() < 0.0 && reported.exact_turns.unwrap() > 0.0);
}
