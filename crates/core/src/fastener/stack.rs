//! How long a bolt must be for what it holds, whether its nut is its own, whether it goes through its hole, and
//! whether it and the wrench come out again.
//!
//! Not here: what it carries (`strength`), and where the eye lies (`pose`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Thread;
use crate::measure::Length;

/// Threads that stand out of the nut at least.
const STANDS_OUT: f64 = 2.0;
/// A hole wider than its bolt by more than this hammers: 1/32 in.
pub const PLAY: Length = Length::from_mm(25.4 / 32.0);
/// Thickness of a spanner's head, where none was measured.
const WRENCH: Length = Length::from_mm(12.0);

/// What holds the bolt's far end.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NutKind {
    /// Plain hexagon.
    #[default]
    Plain,
    /// With a nylon insert: holds until it was off a few times.
    NylonInsert,
    /// Crushed out of round: all metal, once.
    Crushed,
    /// With a flange for its washer.
    Flanged,
    /// On a tab or flag that keeps it from turning.
    Tab,
    /// Caught in a cage.
    Captive,
    /// Welded on.
    Welded,
    /// Castle nut with a cotter pin.
    Castle,
}

impl NutKind {
    /// Its height over the bolt's diameter, where nobody measured it: 7/8 for a plain nut, one for those with
    /// something on top.
    #[must_use]
    pub const fn usual_height(self) -> f64 {
        match self {
            Self::Plain | Self::Tab | Self::Captive | Self::Welded => 0.875,
            Self::NylonInsert | Self::Crushed | Self::Flanged | Self::Castle => 1.0,
        }
    }

    /// Whether a wrench must hold it.
    #[must_use]
    pub const fn needs_wrench(self) -> bool {
        !matches!(self, Self::Tab | Self::Captive | Self::Welded)
    }

    /// In words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Plain => "plain nut",
            Self::NylonInsert => "nylon-insert nut",
            Self::Crushed => "all-metal prevailing-torque nut (crushed)",
            Self::Flanged => "flanged nut",
            Self::Tab => "flag (tab) nut",
            Self::Captive => "captive nut",
            Self::Welded => "weld nut",
            Self::Castle => "castle nut",
        }
    }
}

/// Everything on one bolt.
#[derive(Clone, Debug, PartialEq)]
pub struct Stack {
    /// The bolt's thread; its diameter is taken for its shank's.
    pub bolt: Thread,
    /// Thickness of everything between head and nut but washers: ears, sleeve, spacers, blocks.
    pub clamped: Vec<Length>,
    /// Thickness of each washer, under the head and under the nut alike.
    pub washers: Vec<Length>,
    /// The nut.
    pub nut: NutKind,
    /// Its thread, where it is known by itself.
    pub nut_thread: Option<Thread>,
    /// Its height, where it was measured.
    pub nut_height: Option<Length>,
    /// The hole it goes through.
    pub hole: Option<Length>,
    /// The bolt that is there, under its head.
    pub length: Option<Length>,
    /// How much of it is threaded.
    pub threaded: Option<Length>,
    /// Room behind the head, straight out.
    pub room_at_head: Option<Length>,
    /// Room beyond the face the nut sits on.
    pub room_at_nut: Option<Length>,
}

/// What is wrong with a stack. Lengths are by how much.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum StackFault {
    /// The nut's thread is another.
    WrongNut,
    /// The bolt does not go through the hole.
    HoleTooSmall(Length),
    /// The hole is so wide that the joint hammers.
    HoleTooWide(Length),
    /// It does not stand out of the nut by two threads.
    TooShort(Length),
    /// The nut comes to the end of the thread before it holds anything: so much more under it.
    NutOnShank(Length),
    /// It does not come out past what is behind its head.
    NoWayOut(Length),
    /// No wrench gets past its end on the nut's side.
    NoWrench(Length),
}

/// A stack reckoned.
#[derive(Clone, Debug, PartialEq)]
pub struct Reckoned {
    /// What is held, without washers.
    pub grip: Length,
    /// Shortest that will do: grip, washers, nut, two threads.
    pub needed: Length,
    /// The next longer one there is to buy.
    pub buy: Length,
    /// Longest that still comes out and lets a wrench on, where the room was measured.
    pub most: Option<Length>,
    /// How far the bolt that is there stands out of its nut, in threads.
    pub stands_out_threads: Option<f64>,
    /// How far the thread reaches into the ear on the nut's side, where the thread of the bolt that is there was
    /// measured: there it bears on threads.
    pub thread_in_far_ear: Option<Length>,
    /// Hole less bolt.
    pub play: Option<Length>,
    /// What is wrong.
    pub faults: Vec<StackFault>,
}

/// The next length there is to buy: inch bolts in quarters to six inches and in halves above, metric ones by fives
/// to 100 mm and by tens above.
#[must_use]
pub fn next_made(thread: &Thread, needed: Length) -> Length {
    let (step, fine_to, coarse) = if thread.is_metric() {
        (Length::from_mm(5.0), Length::from_mm(100.0), Length::from_mm(10.0))
    } else {
        (Length::from_inches(0.25), Length::from_inches(6.0), Length::from_inches(0.5))
    };
    // A hair over a made length is that length.
    let up = |step: Length| step * ((needed / step) - 1e-6).ceil();
    let fine = up(step);
    if fine <= fine_to { fine } else { up(coarse) }
}

/// Reckons a stack: geometry.md section 10, length = grip + washers + nut + 2 pitches, not beyond what lets it and
/// the wrench come out.
#[must_use]
pub fn reckon(stack: &Stack) -> Reckoned {
    let sum = |parts: &[Length]| parts.iter().copied().sum::<Length>();
    let grip = sum(&stack.clamped);
    let diameter = stack.bolt.diameter();
    let nut = stack.nut_height.unwrap_or(diameter * stack.nut.usual_height());
    let to_nut_end = grip + sum(&stack.washers) + nut;
    let needed = to_nut_end + stack.bolt.pitch() * STANDS_OUT;
    // It is drawn out by its head until its end is past the near face.
    let out = stack.room_at_head;
    // A wrench goes on over what stands out.
    let wrench = stack.room_at_nut.filter(|_| stack.nut.needs_wrench());
    let past_face = |length: Length| length - grip;
    let by_wrench = wrench.map(|room| room - WRENCH + grip);
    let most = [out, by_wrench].into_iter().flatten().min_by(|a, b| a.to_mm().total_cmp(&b.to_mm()));
    let play = stack.hole.map(|hole| hole - diameter);

    let mut faults = Vec::new();
    if stack.nut_thread.as_ref().is_some_and(|nut| !nut.takes(&stack.bolt)) {
        faults.push(StackFault::WrongNut);
    }
    match play {
        Some(play) if play < Length::ZERO => faults.push(StackFault::HoleTooSmall(-play)),
        Some(play) if play > PLAY => faults.push(StackFault::HoleTooWide(play)),
        _ => {}
    }
    if let Some(length) = stack.length {
        if length < needed {
            faults.push(StackFault::TooShort(needed - length));
        }
        let shank = stack.threaded.map_or(Length::ZERO, |threaded| length - threaded);
        let under_nut = to_nut_end - nut;
        if shank > under_nut {
            faults.push(StackFault::NutOnShank(shank - under_nut));
        }
        if let Some(room) = out.filter(|room| *room < length) {
            faults.push(StackFault::NoWayOut(length - room));
        }
        if let Some(room) = wrench.filter(|room| *room < past_face(length) + WRENCH) {
            faults.push(StackFault::NoWrench(past_face(length) + WRENCH - room));
        }
    }
    Reckoned {
        grip,
        needed,
        buy: next_made(&stack.bolt, needed),
        most,
        stands_out_threads: stack.length.map(|length| (length - to_nut_end) / stack.bolt.pitch()),
        thread_in_far_ear: thread_in_far_ear(stack, grip),
        play,
        faults,
    }
}

/// Thread in the last of what is clamped, from where the shank ends under its head and first washer; None where nothing
/// bears on it, or the bolt that is there was not measured.
fn thread_in_far_ear(stack: &Stack, grip: Length) -> Option<Length> {
    let [_, .., far] = stack.clamped.as_slice() else { return None };
    let shank = stack.length? - stack.threaded?;
    let face = stack.washers.first().copied().unwrap_or(Length::ZERO) + grip;
    let inside = (face - shank).min(*far);
    // Less than a thread is the run-out.
    (inside > stack.bolt.pitch()).then_some(inside)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    fn inches(value: f64) -> Length {
        Length::from_inches(value)
    }

    fn bare(bolt: &str, clamped: &[Length], washers: &[Length]) -> Stack {
        Stack {
            bolt: Thread::parse(bolt).unwrap(),
            clamped: clamped.to_vec(),
            washers: washers.to_vec(),
            nut: NutKind::Plain,
            nut_thread: None,
            nut_height: None,
            hole: None,
            length: None,
            threaded: None,
            room_at_head: None,
            room_at_nut: None,
        }
    }

    /// Two ears of 1/4 in, a sleeve of 2-1/2 in: grip 3 in. Two washers of 0.1 in, a nut of 31/64 in, two threads of
    /// 18 to the inch: 3 + 0.2 + 0.484375 + 0.111111 = 3.795486 in, so 4 in is bought.
    #[test]
    fn an_inch_stack_by_hand() {
        let mut stack = bare("9/16-18", &[inches(0.25), inches(2.5), inches(0.25)], &[inches(0.1); 2]);
        stack.nut_height = Some(inches(31.0 / 64.0));
        stack.length = Some(inches(3.75));
        let reported = reckon(&stack);
        assert!((reported.grip.to_inches() - 3.0).abs() < 1e-9);
        assert!((reported.needed.to_inches() - 3.795_486_1).abs() < 1e-6);
        assert!((reported.buy.to_inches() - 4.0).abs() < 1e-9);
        // 3.75 − 3.684375 = 0.065625 in are 1.18 threads.
        assert!((reported.stands_out_threads.unwrap() - 1.181_25).abs() < 1e-6);
        let [StackFault::TooShort(by)] = reported.faults[..] else { panic!("{:?}", reported.faults) };
        assert!((by.to_inches() - 0.045_486_1).abs() < 1e-6);
        stack.length = Some(inches(4.0));
        assert_eq!(reckon(&stack).faults, []);
    }

    /// Ears of 6 mm, a sleeve of 60: grip 72. Two washers of 2.5, a nylon nut as high as the bolt is thick, two
    /// pitches of 2: 72 + 5 + 14 + 4 = 95 mm, which is made.
    #[test]
    fn a_metric_stack_by_hand() {
        let mut stack = bare("M14x2", &[mm(6.0), mm(60.0), mm(6.0)], &[mm(2.5); 2]);
        stack.nut = NutKind::NylonInsert;
        let reported = reckon(&stack);
        assert!((reported.needed.to_mm() - 95.0).abs() < 1e-9 && (reported.buy.to_mm() - 95.0).abs() < 1e-9);
        // 110 mm with 25 of thread: 85 of shank, and the nut sits at 77: 8 mm of washers or a shorter bolt.
        stack.length = Some(mm(110.0));
        stack.threaded = Some(mm(25.0));
        let [StackFault::NutOnShank(by)] = reckon(&stack).faults[..] else { panic!() };
        assert!((by.to_mm() - 8.0).abs() < 1e-9);
        assert_eq!(reckon(&stack).thread_in_far_ear, None);
        stack.threaded = Some(mm(40.0));
        assert_eq!(reckon(&stack).faults, []);
        // The shank ends at 70, the far ear at 2.5 + 72: 4.5 mm of it bear on threads.
        assert!((reckon(&stack).thread_in_far_ear.unwrap().to_mm() - 4.5).abs() < 1e-9);
        // Behind the head 100 mm: it does not come out; beyond the nut's face 45 mm: 38 stand out and a wrench of 12.
        stack.room_at_head = Some(mm(100.0));
        stack.room_at_nut = Some(mm(45.0));
        let reported = reckon(&stack);
        let [StackFault::NoWayOut(out), StackFault::NoWrench(wrench)] = reported.faults[..] else { panic!() };
        assert!((out.to_mm() - 10.0).abs() < 1e-9 && (wrench.to_mm() - 5.0).abs() < 1e-9);
        // 72 + 45 − 12 = 105 for the wrench, 100 for the way out: the tighter counts.
        assert!((reported.most.unwrap().to_mm() - 100.0).abs() < 1e-9);
        // A nut on a tab needs no wrench.
        stack.nut = NutKind::Tab;
        assert!(matches!(reckon(&stack).faults[..], [StackFault::NoWayOut(_)]));
    }

    #[test]
    fn hole_and_nut_must_be_its_own() {
        let mut stack = bare("9/16-12", &[inches(2.0)], &[]);
        stack.nut_thread = Some(Thread::parse("9/16-18").unwrap());
        stack.hole = Some(mm(14.0));
        // 14.2875 mm of bolt: 0.2875 too thick for a hole of 14.
        let [StackFault::WrongNut, StackFault::HoleTooSmall(by)] = reckon(&stack).faults[..] else {
            panic!()
        };
        assert!((by.to_mm() - 0.2875).abs() < 1e-9);
        stack.nut_thread = Some(Thread::parse("9/16-12").unwrap());
        stack.hole = Some(inches(9.0 / 16.0 + 1.0 / 32.0));
        assert_eq!(reckon(&stack).faults, []);
        stack.hole = Some(inches(5.0 / 8.0));
        assert!(matches!(reckon(&stack).faults[..], [StackFault::HoleTooWide(_)]));
    }

    #[test]
    fn lengths_there_are_to_buy() {
        let made = |bolt: &str, needed: Length| next_made(&Thread::parse(bolt).unwrap(), needed);
        for (needed, bought) in [(3.0, 3.0), (3.01, 3.25), (6.0, 6.0), (6.1, 6.5)] {
            assert!((made("1/2-13", inches(needed)).to_inches() - bought).abs() < 1e-9, "{needed}");
        }
        for (needed, bought) in [(95.0, 95.0), (95.5, 100.0), (100.5, 110.0), (121.0, 130.0)] {
            assert!((made("M14x2", mm(needed)).to_mm() - bought).abs() < 1e-9, "{needed}");
        }
    }

    proptest! {
        /// The bolt that is bought is long enough, and no more than one step too long; a millimetre more to hold
        /// asks for a millimetre more bolt.
        #[test]
        fn what_is_bought_holds(grip in 10.0..140.0_f64, washer in 0.0..4.0_f64, metric: bool) {
            let bolt = if metric { "M14x1.5" } else { "9/16-18" };
            let mut stack = bare(bolt, &[mm(grip)], &[mm(washer); 2]);
            let reported = reckon(&stack);
            prop_assert!(reported.buy >= reported.needed - mm(1e-4) && (reported.buy - reported.needed).to_mm() < 12.8);
            stack.length = Some(reported.buy + mm(1e-3));
            let bought = reckon(&stack);
            prop_assert!(bought.faults.is_empty() && bought.stands_out_threads.unwrap() > 1.99);
            stack.clamped.push(mm(1.0));
            prop_assert!(((reckon(&stack).needed - reported.needed).to_mm() - 1.0).abs() < 1e-9);
        }
    }
}
