//! What to look at next: the check that divides the suspects most for the minutes it takes, with what each answer would
//! mean.

use serde::Serialize;
use utoipa::ToSchema;

use super::hypothesis::{Hypothesis, share_of};
use super::message::DiagnosisMessage;
use super::tables;
use crate::document::Job;
use crate::document::diagnosis::{QuickCheck, Suspect};
use crate::message::Message;

/// How many are offered.
const OFFERED: usize = 3;
/// Minutes it takes to begin anything: what is quick is not everything.
const TO_BEGIN: f64 = 3.0;
/// A check that divides less than this, in nats, is no advice.
const LEAST: f64 = 0.01;

/// A check that is offered.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NextCheck {
    /// Which.
    pub check: QuickCheck,
    /// Its question, answered with yes or no.
    pub asks: Message,
    /// What to mind at it.
    pub mind: Message,
    /// Minutes it takes, tools in hand.
    pub minutes: u32,
    /// What a yes would mean.
    pub if_seen: Message,
    /// What a no would mean.
    pub if_not: Message,
}

/// What to look at next, the best first.
pub(super) fn next(job: &Job, suspects: &[Suspect], hypotheses: &[Hypothesis]) -> Vec<NextCheck> {
    let open = QuickCheck::ALL.into_iter().filter(|check| {
        tables::still_seen(job, *check).is_none()
            && suspects.iter().any(|suspect| tables::looks_for(*check, *suspect))
    });
    let mut gains: Vec<(QuickCheck, f64)> = open
        .map(|check| (check, gain(check, hypotheses)))
        .filter(|(_, gain)| *gain > LEAST)
        .map(|(check, gain)| (check, gain / (TO_BEGIN + f64::from(tables::minutes(check)))))
        .collect();
    gains.sort_by(|one, other| other.1.total_cmp(&one.1));
    gains.truncate(OFFERED);
    gains.into_iter().map(|(check, _)| offered(check, suspects, hypotheses)).collect()
}

fn offered(check: QuickCheck, suspects: &[Suspect], hypotheses: &[Hypothesis]) -> NextCheck {
    let outcome = |seen: bool| -> Message {
        let after = answered(hypotheses, check, seen);
        let shares = suspects.iter().map(|suspect| (*suspect, share_of(&after, *suspect)));
        let nothing: f64 = after.iter().filter(|one| one.faults[0].is_none()).map(|one| one.share).sum();
        let first =
            shares.max_by(|one, other| one.1.total_cmp(&other.1)).filter(|(_, share)| *share > nothing);
        let share = first.map_or(nothing, |(_, share)| share);
        DiagnosisMessage::Outcome { seen, likeliest: first.map(|(suspect, _)| suspect), share }.into()
    };
    NextCheck {
        check,
        asks: DiagnosisMessage::Asks(check).into(),
        mind: DiagnosisMessage::Mind(check).into(),
        minutes: tables::minutes(check),
        if_seen: outcome(true),
        if_not: outcome(false),
    }
}

/// The shares once a check is answered.
fn answered(hypotheses: &[Hypothesis], check: QuickCheck, seen: bool) -> Vec<Hypothesis> {
    let chance = |one: &Hypothesis| if seen { one.shows(check) } else { 1.0 - one.shows(check) };
    let sum: f64 = hypotheses.iter().map(|one| one.share * chance(one)).sum();
    hypotheses
        .iter()
        .map(|one| Hypothesis { share: one.share * chance(one) / sum.max(f64::MIN_POSITIVE), ..*one })
        .collect()
}

/// How much less is unsure once it is answered, in nats: the mutual information of the answer and what is the matter.
fn gain(check: QuickCheck, hypotheses: &[Hypothesis]) -> f64 {
    let seen: f64 = hypotheses.iter().map(|one| one.share * one.shows(check)).sum();
    let unsure = |chance: f64| {
        if chance <= 0.0 || chance >= 1.0 {
            return 0.0;
        }
        -(chance * chance.ln() + (1.0 - chance) * (1.0 - chance).ln())
    };
    unsure(seen) - hypotheses.iter().map(|one| one.share * unsure(one.shows(check))).sum::<f64>()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn two(share: f64) -> Vec<Hypothesis> {
        vec![
            Hypothesis { faults: [Some(Suspect::BoltLoose), None], share },
            Hypothesis { faults: [Some(Suspect::BushingTorn), None], share: 1.0 - share },
        ]
    }

    /// Bayes by hand: half and half, a loose bolt moves in 92 of a hundred and a torn bushing lets it in 8: 0.92.
    #[test]
    fn an_answer_turns_the_shares_by_bayes() {
        let after = answered(&two(0.5), QuickCheck::BoltMoves, true);
        assert!((after[0].share - 0.92).abs() < 1e-12 && (after[1].share - 0.08).abs() < 1e-12);
    }

    #[test]
    fn a_check_that_shows_the_same_of_both_divides_nothing() {
        assert!(gain(QuickCheck::FloorSlopes, &two(0.5)).abs() < 1e-12);
        assert!(gain(QuickCheck::BoltMoves, &two(0.5)) > gain(QuickCheck::BoltMoves, &two(0.95)));
        assert!(gain(QuickCheck::BoltMoves, &two(1.0)).abs() < 1e-9);
    }
}
