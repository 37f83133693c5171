//! The adjuster of the bar that a setup has: as found, or a part of the job, with the thread
//! that is in after everything that was hung, cut, evened and turned.

use crate::document::{AdjusterForm, BarId, Job, Round, ThreadedEndForm, length_of};
use derecho_core::bar::adjuster::{Adjuster, AdjusterKind, CutFrom, ThreadedEnd, setting};
use derecho_core::fastener::Hand;
use derecho_core::measure::{Length, TapeEntry};
use derecho_core::parts::BarPart;

/// Thread that is measured within this of its limit is at it: a length set to the tape's
/// smallest mark is not surer.
const THREAD_SLACK: Length = Length::from_mm(0.4);

/// Why a bar must not stay as it is set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum ThreadFault {
    /// Less thread is in than must stay in.
    TooLittle {
        /// What is in.
        in_mm: Length,
        /// What must be.
        least_mm: Length,
    },
    /// More thread than there is depth for: it cannot be so.
    PastFullDepth {
        /// What would be in.
        in_mm: Length,
        /// What can be.
        full_mm: Length,
    },
}

/// A bar with its thread as it is.
#[derive(Clone, Debug, PartialEq)]
pub struct BarState {
    /// Its part; empty is the bar as found.
    pub id: BarId,
    /// What people call it; empty for the bar as found.
    pub name: String,
    /// Eye to eye.
    pub length: Length,
    /// Its adjuster; None where nobody said how its length is changed, or it is cut and welded
    /// to whatever is wanted and not yet hung.
    pub adjuster: Option<Adjuster>,
    /// Whether `length` is its length screwed right in, from which it is set on the bench.
    pub fully_in: bool,
    /// Whether it is cut and welded to length.
    pub made_to_length: bool,
    /// Shortest and longest it can be made, where that is known.
    pub range: (Option<Length>, Option<Length>),
}

impl BarState {
    /// The bar as found.
    #[must_use]
    pub fn found(job: &Job, length: Length, built: bool) -> Self {
        let adjuster = if built { None } else { adjuster_of_form(&job.setups.found.adjuster) };
        Self {
            id: BarId::default(),
            name: String::new(),
            length,
            adjuster,
            fully_in: false,
            made_to_length: built,
            range: (None, None),
        }
    }

    /// Whether it is still to be cut and welded: once it hangs nothing changes its length.
    #[must_use]
    pub const fn is_to_be_made(&self) -> bool {
        self.made_to_length && self.adjuster.is_none()
    }

    /// A part as it comes out of its box: an adjustable bar screwed right in, a bar that is
    /// cut and welded at the length the old one had, until its own is known.
    #[must_use]
    pub fn new(part: &BarPart, old: Length) -> Self {
        let Some(kind) = part.adjuster else {
            return Self {
                id: part.id.clone(),
                name: part.name.clone(),
                length: old,
                adjuster: None,
                fully_in: false,
                made_to_length: true,
                range: (length_of(&part.made_min), length_of(&part.made_max)),
            };
        };
        let least = length_of(&part.made_min);
        let most = length_of(&part.made_max);
        let fixed = kind == AdjusterKind::Fixed;
        let length = if fixed { least.or(most) } else { least };
        Self {
            id: part.id.clone(),
            name: part.name.clone(),
            length: length.unwrap_or(old),
            adjuster: Some(adjuster_of_part(part, kind)),
            fully_in: !fixed && least.is_some(),
            made_to_length: false,
            range: (least, most),
        }
    }

    /// What is wrong with the thread that is in, frame-side end first.
    #[must_use]
    pub fn thread_faults(&self) -> Vec<ThreadFault> {
        let ends = self.adjuster.iter().flat_map(|adjuster| [&adjuster.first, &adjuster.second]);
        ends.flatten()
            .filter_map(|end| {
                let engagement = end.engagement?;
                let least = end.least_engagement();
                let full = end.full_depth();
                if engagement + THREAD_SLACK < least {
                    Some(ThreadFault::TooLittle { in_mm: engagement, least_mm: least })
                } else if full.is_some_and(|full| engagement > full + THREAD_SLACK) {
                    Some(ThreadFault::PastFullDepth {
                        in_mm: engagement,
                        full_mm: full.unwrap_or(engagement),
                    })
                } else {
                    None
                }
            })
            .collect()
    }

    /// The bar after a round's cut, evening and setting.
    #[must_use]
    pub fn after(mut self, round: &Round) -> Self {
        if let Some(cut) = &round.cut {
            self.cut(cut.each_end.length(), cut.from);
        }
        if let Some(length) = &round.length {
            self.set(length.length());
        }
        if let Some(adjuster) = &mut self.adjuster {
            for (end, measured) in [
                (&mut adjuster.first, &round.first_engagement),
                (&mut adjuster.second, &round.second_engagement),
            ] {
                if let (Some(end), Some(measured)) = (end, measured) {
                    end.engagement = Some(measured.length());
                }
            }
        }
        self
    }

    /// Every end comes out, or goes in, by its share of the change.
    fn set(&mut self, length: Length) {
        if let Some(adjuster) = &mut self.adjuster {
            let turned = setting(adjuster, self.length, length);
            if let (Some(turns), Some(_)) = (turned.exact_turns, turned.per_turn_mm) {
                let out = shares(adjuster, turns);
                for (end, out) in [&mut adjuster.first, &mut adjuster.second].into_iter().zip(out) {
                    if let Some(end) = end {
                        end.engagement = end.engagement.map(|engagement| engagement - out);
                    }
                }
            }
        }
        if self.made_to_length {
            self.adjuster = Some(Adjuster {
                kind: AdjusterKind::Fixed,
                first: None,
                second: None,
                end_style: derecho_core::bar::adjuster::EndStyle::default(),
                made_min: None,
                made_max: None,
            });
        }
        self.length = length;
        self.fully_in = false;
    }

    /// What is cut off an end is gone from its shank or its body, and from the thread that was
    /// in there; screwed right in the bar is so much shorter.
    fn cut(&mut self, each_end: Length, from: CutFrom) {
        let Some(adjuster) = &mut self.adjuster else { return };
        let mut ends = 0.0;
        for end in [&mut adjuster.first, &mut adjuster.second].into_iter().flatten() {
            ends += 1.0;
            let off = |length: &mut Option<Length>| {
                *length = length.map(|length| (length - each_end).max(Length::ZERO));
            };
            if from != CutFrom::Body {
                off(&mut end.shank);
                off(&mut end.engagement);
            }
            if from != CutFrom::Shanks {
                off(&mut end.tapped_depth);
                off(&mut end.engagement);
            }
        }
        let shorter = each_end * ends;
        adjuster.made_min = adjuster.made_min.map(|least| least - shorter);
        adjuster.made_max = adjuster.made_max.map(|most| most - shorter);
    }
}

/// How far each end comes out in so many turns that lengthen the bar.
fn shares(adjuster: &Adjuster, turns: f64) -> [Length; 2] {
    let pitch = |end: &Option<ThreadedEnd>| end.as_ref().map_or(Length::ZERO, |end| end.thread.pitch());
    let hand = |end: &Option<ThreadedEnd>| end.as_ref().and_then(|end| end.hand);
    let (a, b) = (pitch(&adjuster.first), pitch(&adjuster.second));
    if adjuster.kind != AdjusterKind::Turnbuckle {
        return [a * turns, Length::ZERO];
    }
    let same = hand(&adjuster.first) == hand(&adjuster.second);
    // With two threads of one hand the finer goes in while the coarser comes out.
    match (same, a < b) {
        (true, true) => [a * -turns, b * turns],
        (true, false) => [a * turns, b * -turns],
        (false, _) => [a * turns, b * turns],
    }
}

fn adjuster_of_form(form: &AdjusterForm) -> Option<Adjuster> {
    let kind = form.kind?;
    Some(Adjuster {
        kind,
        first: threaded_end(&form.first).filter(|_| kind != AdjusterKind::Fixed),
        second: threaded_end(&form.second).filter(|_| kind == AdjusterKind::Turnbuckle),
        end_style: form.end_style,
        made_min: length_of(&form.made_min),
        made_max: length_of(&form.made_max),
    })
}

fn threaded_end(form: &ThreadedEndForm) -> Option<ThreadedEnd> {
    let thread = form.thread.clone()?;
    Some(ThreadedEnd {
        hand: form.hand.or(thread.hand()),
        thread,
        engagement: length_of(&form.engagement),
        shank: length_of(&form.shank),
        tapped_depth: length_of(&form.tapped_depth),
        seat: form.seat,
        witness: length_of(&form.witness),
    })
}

/// A part's adjuster, both ends screwed right in.
fn adjuster_of_part(part: &BarPart, kind: AdjusterKind) -> Adjuster {
    let length = |entry: &Option<TapeEntry>| length_of(entry);
    let end = |thread: Option<&derecho_core::fastener::Thread>, hand: Option<Hand>| {
        let mut end = ThreadedEnd {
            hand: hand.or(thread?.hand()),
            thread: thread?.clone(),
            engagement: None,
            shank: length(&part.shank),
            tapped_depth: length(&part.tapped_depth),
            seat: part.seat,
            witness: length(&part.least_engagement),
        };
        end.engagement = part.made_min.as_ref().and(end.full_depth());
        Some(end)
    };
    let first = end(part.thread.as_ref(), part.hand);
    let second = end(part.second_thread.as_ref().or(part.thread.as_ref()), part.second_hand);
    Adjuster {
        kind,
        first: first.filter(|_| kind != AdjusterKind::Fixed),
        second: second.filter(|_| kind == AdjusterKind::Turnbuckle),
        end_style: part.end_style,
        made_min: length(&part.made_min),
        made_max: length(&part.made_max),
    }
}
