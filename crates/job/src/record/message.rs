//! What the record of a closed job says by itself, as facts.

use crate::document::ComplaintAfter;
use crate::document::proof::Acceptance;
use crate::message::{Label, Message, OfTopic, Topic};
use derecho_core::measure::{Angle, Length};
use jiff::civil::Date;

/// What stands over a part of the record.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RecordHeading {
    /// What it came in for, and what became of it.
    Complaint,
    /// Both sides and the bar, before and after.
    Measured,
    /// What was installed and set.
    Set,
    /// Every fastener, by whom and with what.
    Torques,
    /// What the job was closed over.
    Accepted,
    /// What to look at, and when.
    Due,
    /// For whoever works on it next.
    NextTime,
}

/// What the record says by itself.
#[derive(Clone, Debug, PartialEq)]
pub enum RecordMessage {
    /// A heading.
    Heading(RecordHeading),
    /// A complaint in the owner's words, and how it stands afterwards.
    Complaint {
        /// The owner's words.
        text: String,
        /// Asked again; None where nobody did.
        after: Option<ComplaintAfter>,
    },
    /// Both sides of a set of measurements, and where the axle was.
    Sides {
        /// Whether the work was done then.
        after: bool,
        /// The mean of the left side.
        left: Length,
        /// Of the right one.
        right: Length,
        /// Where the axle was, as the Tape screen says it.
        says: Message,
    },
    /// The track bar's angle at the driven height, as found and now, + frame eye higher.
    BarAngle {
        /// As it came; None where no bar was there.
        found: Option<Angle>,
        /// As it is installed.
        now: Angle,
    },
    /// A fastener and how tight it was made.
    Torque {
        /// What it is.
        name: Label,
        /// How tight, in words.
        says: Message,
        /// With which tool; empty where nobody said.
        tool: String,
        /// By whom; empty where nobody said.
        by: String,
    },
    /// Something the job was closed over.
    Accepted {
        /// Whether it weighs safety.
        safety: bool,
        /// What it is.
        says: Message,
        /// By whom, why and when.
        accepted: Acceptance,
    },
    /// Something to look at afterwards.
    Due {
        /// What to do.
        says: Message,
        /// The day, where it goes by days.
        day: Option<Date>,
        /// What the odometer reads then.
        odometer: Option<Message>,
    },
    /// Who closed it, and when.
    Closed {
        /// Who; empty where nobody said.
        by: String,
        /// The day, in UTC.
        day: Date,
    },
    /// Changed since it was closed.
    ChangedSince,
}

impl OfTopic for RecordMessage {
    const TOPIC: Topic = Topic::Record;
}
