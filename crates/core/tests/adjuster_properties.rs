//! What must hold of every setting of every threaded bar.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::{
    Adjuster, AdjusterKind, EndStyle, Setting, ThreadSeat, ThreadedEnd, Verdict, setting,
};
use derecho_core::fastener::{Hand, Thread};
use derecho_core::measure::Length;
use proptest::prelude::*;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn threads() -> impl Strategy<Value = &'static str> {
    prop::sample::select(vec!["1-1/4-12", "1-14", "7/8-18", "3/4-16", "M24x2", "M20x1.5", "M30x3.5"])
}

fn hands() -> impl Strategy<Value = Hand> {
    prop::sample::select(vec![Hand::Left, Hand::Right])
}

fn end() -> impl Strategy<Value = ThreadedEnd> {
    (threads(), hands(), 30.0_f64..80.0, 0.0_f64..60.0).prop_map(|(thread, hand, engagement, more)| {
        ThreadedEnd {
            thread: Thread::parse(thread).unwrap(),
            hand: Some(hand),
            engagement: Some(mm(engagement)),
            shank: Some(mm(engagement + more)),
            tapped_depth: Some(mm(engagement + more + 5.0)),
            seat: ThreadSeat::Steel,
            witness: None,
        }
    })
}

fn any_bar() -> impl Strategy<Value = Adjuster> {
    let styles = prop::sample::select(vec![EndStyle::ThroughBolt, EndStyle::BallStud, EndStyle::OneWayUp]);
    (end(), end(), prop::bool::ANY, styles).prop_map(|(first, second, turnbuckle, end_style)| Adjuster {
        kind: if turnbuckle { AdjusterKind::Turnbuckle } else { AdjusterKind::OneEnd },
        first: Some(first),
        second: turnbuckle.then_some(second),
        end_style,
        made_min: None,
        made_max: None,
    })
}

/// A setting that could be worked out in turns.
fn turned(bar: &Adjuster, change: f64) -> Option<Setting> {
    Some(setting(bar, mm(800.0), mm(800.0 + change))).filter(|set| set.per_turn_mm.is_some())
}

proptest! {
    #[test]
    fn the_nearest_step_is_never_more_than_half_a_step_off(bar in any_bar(), change in -40.0_f64..40.0) {
        let Some(set) = turned(&bar, change).filter(|set| set.verdict == Verdict::Fits) else { return Ok(()) };
        // A step that the threads do not allow is left out: up to one is missed there.
        let most = if set.longest_mm.is_some() || set.shortest_mm.is_some() { 1.0 } else { 0.5 };
        let (left, step) = (set.leftover_mm.unwrap().abs(), set.step_mm.unwrap());
        prop_assert!(left.to_mm() <= step.to_mm() * most + 1e-9);
        prop_assert!((set.achieved_change_mm.unwrap() + set.leftover_mm.unwrap() - mm(change)).abs().to_mm() < 1e-9);
    }

    #[test]
    fn turns_and_flats_make_the_change(bar in any_bar(), change in -40.0_f64..40.0) {
        let Some(set) = turned(&bar, change) else { return Ok(()) };
        if set.turns.is_none() {
            prop_assert!(!set.verdict.reaches());
            return Ok(());
        }
        let turns = f64::from(set.turns.unwrap()) + f64::from(set.flats.unwrap()) / 6.0;
        let made = set.per_turn_mm.unwrap().to_mm() * turns;
        prop_assert!((made - set.achieved_change_mm.unwrap().abs().to_mm()).abs() < 1e-9);
        prop_assert!(set.flats.unwrap() < 6);
        if bar.kind == AdjusterKind::OneEnd && bar.end_style == EndStyle::ThroughBolt {
            prop_assert_eq!(set.flats.unwrap() % 3, 0, "a bolted eye lines up twice in a turn");
        }
        if bar.kind == AdjusterKind::OneEnd && bar.end_style == EndStyle::OneWayUp {
            prop_assert_eq!(set.flats.unwrap(), 0, "this one once");
        }
    }

    #[test]
    fn what_comes_out_of_the_ends_is_what_the_bar_grows(bar in any_bar(), change in -40.0_f64..40.0) {
        let Some(set) = turned(&bar, change).filter(|set| set.verdict != Verdict::EvenEnds) else { return Ok(()) };
        let out: f64 = set
            .ends
            .iter()
            .map(|end| (end.engagement_before_mm.unwrap() - end.engagement_after_mm.unwrap()).to_mm())
            .sum();
        prop_assert!((out - set.achieved_change_mm.unwrap().to_mm()).abs() < 1e-9);
    }

    #[test]
    fn beyond_its_longest_and_below_its_shortest_it_never_fits(bar in any_bar()) {
        let Some(set) = turned(&bar, 1.0) else { return Ok(()) };
        let two_steps = set.step_mm.unwrap().to_mm() * 2.0;
        if let Some(longest) = set.equal_engagement_longest_mm {
            let beyond = turned(&bar, (longest - mm(800.0)).to_mm() + two_steps).unwrap();
            prop_assert!(matches!(beyond.verdict, Verdict::TooLittleThread | Verdict::ThreadBottoms), "{:?}", beyond.verdict);
        }
        if let Some(shortest) = set.equal_engagement_shortest_mm {
            let below = turned(&bar, (shortest - mm(800.0)).to_mm() - two_steps).unwrap();
            prop_assert_eq!(below.verdict, Verdict::CutBack);
        }
    }

    #[test]
    fn between_its_shortest_and_its_longest_a_hit_length_fits(bar in any_bar(), share in 0.0_f64..1.0) {
        let Some(set) = turned(&bar, 1.0) else { return Ok(()) };
        let (Some(longest), Some(shortest)) = (set.longest_mm, set.shortest_mm) else { return Ok(()) };
        // A bar that holds by too little thread already fits nowhere near where it stands.
        if set.ends.iter().any(|end| end.engagement_before_mm.unwrap() < end.least_engagement_mm) {
            return Ok(());
        }
        // A whole number of steps inside the range, so that rounding cannot lead outside.
        let step = set.step_mm.unwrap().to_mm();
        let (low, high) = ((shortest.to_mm() - 800.0) / step, (longest.to_mm() - 800.0) / step);
        let steps = (low + share * (high - low)).round();
        if steps < low || steps > high || steps == 0.0 {
            return Ok(());
        }
        prop_assert_eq!(turned(&bar, steps * step).unwrap().verdict, Verdict::Fits);
    }

    #[test]
    fn longer_and_shorter_are_mirror_images_in_turns(bar in any_bar(), change in 0.1_f64..20.0) {
        let (Some(out), Some(back)) = (turned(&bar, change), turned(&bar, -change)) else { return Ok(()) };
        prop_assert!((out.exact_turns.unwrap() + back.exact_turns.unwrap()).abs() < 1e-9);
        if out.verdict == Verdict::Fits && back.verdict == Verdict::Fits {
            let least = |set: &Setting| set.leftover_mm.unwrap().abs() <= set.step_mm.unwrap() / 2.0;
            if least(&out) && least(&back) {
                prop_assert_eq!((out.turns, out.flats), (back.turns, back.flats));
            }
        }
    }

    #[test]
    fn a_fits_verdict_leaves_enough_thread_at_every_end(bar in any_bar(), change in -40.0_f64..40.0) {
        let Some(set) = turned(&bar, change) else { return Ok(()) };
        if set.verdict == Verdict::Fits {
            prop_assert!(set.ends.iter().all(|end| end.enough != Some(false)));
            prop_assert!(set.cut.is_none());
        }
    }

    #[test]
    fn the_picture_never_has_more_thread_than_there_is(bar in any_bar(), change in -90.0_f64..90.0) {
        let Some(set) = turned(&bar, change) else { return Ok(()) };
        for end in &set.ends {
            prop_assert!(end.engagement_after_mm.unwrap().to_mm() <= end.full_depth_mm.unwrap().to_mm() + 0.02, "{:?}", set.verdict);
        }
        // Where it is not reached, no turns are told.
        prop_assert_eq!(set.turns.is_some(), set.verdict.reaches());
    }

    #[test]
    fn equal_engagement_ends_hold_alike_and_hold_enough(bar in any_bar(), change in 0.0_f64..60.0) {
        let Some(set) = turned(&bar, change).filter(|set| set.verdict == Verdict::EvenEnds) else { return Ok(()) };
        let spare = |end: &derecho_core::bar::adjuster::EndAfter| (end.engagement_after_mm.unwrap() - end.least_engagement_mm).to_mm();
        prop_assert!(set.ends.iter().all(|end| spare(end) >= -0.02));
        // What comes out of both is still the change.
        let out: f64 = set.ends.iter().map(|end| (end.engagement_before_mm.unwrap() - end.engagement_after_mm.unwrap()).to_mm()).sum();
        prop_assert!((out - change).abs() < 1e-6);
    }

    #[test]
    fn after_the_cut_it_can_be_trimmed_both_ways(bar in any_bar(), short in 7.0_f64..30.0) {
        let Some(now) = turned(&bar, 0.0) else { return Ok(()) };
        let Some(shortest) = now.equal_engagement_shortest_mm else { return Ok(()) };
        let wanted = shortest - mm(short);
        let Some(cut) = setting(&bar, mm(800.0), wanted).cut else { return Ok(()) };
        // The same bar with its ends cut off, screwed right in, is shorter than wanted by the trim.
        let right_in = shortest - cut.each_end_mm * cut.ends as f64;
        prop_assert!(((wanted - right_in) - cut.trim_mm).abs().to_mm() < 1e-9);
    }
}
