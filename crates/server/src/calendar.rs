//! Reminders as a calendar file: a day each, an alarm the day before and on the day. Ids and stamps come from the job,
//! so that a calendar that reads the file again changes its entries instead of doubling them.

use chrono::{Duration, NaiveDate};
use derecho_job::Job;
use derecho_job::document::proof::ReminderKind;
use derecho_results::solve;
use derecho_words::Spoken as _;
use icalendar::{Alarm, Calendar, Component as _, Event, EventLike as _, Property};
use jiff::Timestamp;
use jiff::civil::Date;

/// One reminder of one job.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Due {
    /// The job's id.
    pub id: String,
    /// The job's title.
    pub title: String,
    /// Which.
    pub kind: ReminderKind,
    /// The day.
    pub day: Date,
    /// What to do, in the job's own unit.
    pub says: String,
    /// When the job was saved last.
    pub saved_at: Timestamp,
    /// Which of several of a kind.
    index: usize,
}

/// What is due of a job and not seen to, by days; what has no day yet is left out.
#[must_use]
pub fn due(id: &str, job: &Job, saved_at: Timestamp) -> Vec<Due> {
    let reminders = solve(job).settling.reminders;
    let numbered = reminders.into_iter().enumerate();
    let mut list: Vec<Due> = numbered
        .filter(|(_, reminder)| reminder.done.is_none())
        .filter_map(|(index, reminder)| {
            let at = reminder.odometer_says.as_ref().map(|says| says.in_unit(job.rig.sheet_unit));
            let says = reminder.says.in_unit(job.rig.sheet_unit);
            Some(Due {
                id: id.to_owned(),
                title: job.title.clone(),
                kind: reminder.kind,
                day: reminder.due?,
                says: at.map_or_else(|| says.to_owned(), |at| format!("{says} Odometer {at}.")),
                saved_at,
                index,
            })
        })
        .collect();
    list.sort_by_key(|due| due.day);
    list
}

const fn word(kind: ReminderKind) -> &'static str {
    match kind {
        ReminderKind::FirstDay => "first-day",
        ReminderKind::FirstFifty => "first-fifty",
        ReminderKind::FiveHundred => "five-hundred",
        ReminderKind::FirstTrail => "first-trail",
        ReminderKind::TwoWeeks => "two-weeks",
        ReminderKind::Temporary => "temporary",
        ReminderKind::ByFeel => "by-feel",
    }
}

/// As a calendar file.
#[must_use]
pub fn calendar(due: &[Due]) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(Property::new("VERSION", "2.0"));
    calendar.append_property(Property::new("PRODID", "-//Derecho//Reminders//EN"));
    for reminder in due {
        let of_a_kind = if reminder.kind == ReminderKind::Temporary {
            format!("{}-{}", word(reminder.kind), reminder.index)
        } else {
            word(reminder.kind).to_owned()
        };
        let id = format!("{}-{of_a_kind}@derecho", reminder.id);
        let stamp = reminder.saved_at.strftime("%Y%m%dT%H%M%SZ").to_string();
        let alarm = |before: Duration, name: &str| {
            let mut alarm = Alarm::display(&reminder.says, -before);
            alarm.append_property(Property::new("UID", format!("{name}-{id}")));
            alarm.done()
        };
        let day = reminder.day;
        // The years of a calendar are far inside those of the other one.
        let Some(date) = NaiveDate::from_ymd_opt(
            day.year().into(),
            day.month().unsigned_abs().into(),
            day.day().unsigned_abs().into(),
        ) else {
            continue;
        };
        let mut event = Event::new();
        event
            .all_day(date)
            .summary(&format!("{}: torque and look", reminder.title))
            .description(&reminder.says);
        event.append_property(Property::new("UID", &id));
        event.append_property(Property::new("DTSTAMP", &stamp));
        event.alarm(alarm(Duration::days(1), "before"));
        event.alarm(alarm(Duration::zero(), "on"));
        calendar.push(event.done());
    }
    calendar.to_string()
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;
    use ical::parser::ical::component::IcalEvent;

    fn job() -> Job {
        let text = include_str!("../../../demo/supply-truck-9.derecho.json");
        let mut value: serde_json::Value = serde_json::from_str(text).unwrap();
        value["proof"] = serde_json::json!({ "on_the_road": "2026-02-27", "odometer": "84,210 mi" });
        serde_json::from_value(value).unwrap()
    }

    fn value(event: &IcalEvent, name: &str) -> String {
        let property = event.properties.iter().find(|property| property.name == name);
        property.and_then(|property| property.value.clone()).unwrap_or_default()
    }

    /// Days counted by hand from 27 February 2026, no leap year: the 28th, 2 March, 13 March, 29 March.
    #[test]
    fn days_and_odometer_as_counted_by_hand() {
        let due = due("supply", &job(), "2026-02-27T10:00:00Z".parse().unwrap());
        let reported: Vec<(ReminderKind, String)> = due.iter().map(|d| (d.kind, d.day.to_string())).collect();
        assert_eq!(
            reported,
            [
                (ReminderKind::FirstDay, "2026-02-28".to_owned()),
                (ReminderKind::FirstFifty, "2026-03-02".to_owned()),
                (ReminderKind::TwoWeeks, "2026-03-13".to_owned()),
                (ReminderKind::FiveHundred, "2026-03-29".to_owned()),
            ]
        );
        assert!(due[1].says.contains("Odometer at 84260 miles."), "{}", due[1].says);
        assert!(due[3].says.contains("Odometer at 84710 miles."), "{}", due[3].says);
    }

    #[test]
    fn another_parser_reads_the_calendar() {
        let stamp = "2026-02-27T10:00:00Z".parse().unwrap();
        let text = calendar(&due("supply", &job(), stamp));
        assert!(text.contains("\r\n"));
        let read: Vec<_> = ical::IcalParser::new(text.as_bytes()).map(Result::unwrap).collect();
        assert_eq!(read.len(), 1);
        let events = &read[0].events;
        assert_eq!(events.len(), 4);
        let days: Vec<String> = events.iter().map(|event| value(event, "DTSTART")).collect();
        assert_eq!(days, ["20260228", "20260302", "20260313", "20260329"]);
        let mut ids: Vec<String> = events.iter().map(|event| value(event, "UID")).collect();
        assert!(
            events
                .iter()
                .all(|event| event.alarms.len() == 2 && value(event, "DTSTAMP") == "20260227T100000Z")
        );
        ids.dedup();
        assert_eq!(ids.len(), 4);
        // Read again it is the same file, with the same ids.
        assert_eq!(text, calendar(&due("supply", &job(), stamp)));
    }

    /// Alarms go off as the day before begins, and as the day itself begins: a day late is too late.
    #[test]
    fn alarms_are_the_day_before_and_on_the_day() {
        let text = calendar(&due("supply", &job(), "2026-02-27T10:00:00Z".parse().unwrap()));
        let read = ical::IcalParser::new(text.as_bytes()).next().unwrap().unwrap();
        for event in &read.events {
            let triggers: Vec<String> = event
                .alarms
                .iter()
                .map(|alarm| {
                    let trigger =
                        alarm.properties.iter().find(|property| property.name == "TRIGGER").unwrap();
                    let from_end = trigger
                        .params
                        .iter()
                        .flatten()
                        .any(|(name, of)| name == "RELATED" && of.contains(&"END".to_owned()));
                    assert!(!from_end, "{trigger:?}");
                    trigger.value.clone().unwrap()
                })
                .collect();
            assert_eq!(triggers.len(), 2);
            assert!(matches!(triggers[0].as_str(), "-P1D" | "-PT86400S" | "-PT24H"), "{triggers:?}");
            let none = triggers[1].trim_start_matches('-');
            assert!(matches!(none, "P0D" | "PT0S" | "PT0M" | "PT0H"), "{triggers:?}");
        }
    }

    #[test]
    fn what_was_seen_to_is_no_longer_due() {
        let mut job = job();
        job.proof.reminders = serde_json::from_value(serde_json::json!([
            { "kind": "first_day", "done": { "at": "2026-02-28T09:00:00Z", "by": "R. Holt" } }
        ]))
        .unwrap();
        let due = due("supply", &job, "2026-02-27T10:00:00Z".parse().unwrap());
        assert!(due.iter().all(|due| due.kind != ReminderKind::FirstDay) && due.len() == 3);
    }
}
