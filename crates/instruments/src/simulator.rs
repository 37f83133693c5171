//! Simulated instruments, so that everything works on one machine with nothing attached.

use std::io;
use std::time::Duration;

use futures_util::{SinkExt as _, StreamExt as _};
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::TcpListener;
use tokio_util::codec::Framed;

use crate::connection::Lines;
use crate::instrument::{Announced, Kind, Reading, Unit};
use crate::message::Sentence;

/// How often a stand-in shows what it reads.
const BEAT: Duration = Duration::from_millis(500);
/// It says what it is at every so many beats.
const ANNOUNCES: u64 = 20;

/// A simulated instrument: it holds one of its values after another.
#[derive(Clone, Debug, PartialEq)]
pub struct StandIn {
    /// What it says of itself.
    pub announced: Announced,
    /// What it reads, one after another, then from the first again.
    pub values: Vec<f64>,
}

impl StandIn {
    /// One of a kind, with usual figures.
    #[must_use]
    pub fn of(kind: Kind, unit: Unit, values: Vec<f64>) -> Self {
        let (resolution, good_to) = match unit {
            Unit::Millimetres => (0.5, 1.0),
            Unit::Inches => (1.0 / 32.0, 1.0 / 16.0),
            Unit::Degrees => (0.1, 0.2),
            Unit::NewtonMetres | Unit::PoundFeet => (1.0, 4.0),
            Unit::Kilograms | Unit::Pounds => (1.0, 5.0),
            Unit::Turns => (1.0 / 6.0, 1.0 / 12.0),
        };
        let announced = Announced {
            id: format!("practice {}", kind.word()),
            kind,
            unit,
            resolution,
            good_to,
            checked: Some(jiff::civil::date(2026, 10, 1)),
        };
        Self { announced, values }
    }

    /// Speaks on an open line until it is closed. `number` goes on from one line to the next.
    ///
    /// # Errors
    /// Where the line fails.
    pub async fn speak(
        &self,
        stream: impl AsyncRead + AsyncWrite + Unpin,
        number: &mut u64,
    ) -> io::Result<()> {
        let mut lines = Framed::new(stream, Lines::new());
        let mut beat = tokio::time::interval(BEAT);
        let mut beats = 0_u64;
        let mut off = 0.0;
        let id = &self.announced.id;
        loop {
            tokio::select! {
                _ = beat.tick() => {
                    if beats.is_multiple_of(ANNOUNCES) {
                        lines.send(Sentence::Announce(self.announced.clone()).line()).await?;
                    }
                    beats += 1;
                    lines.send(self.reading(*number, off, false).line()).await?;
                }
                line = lines.next() => match line {
                    None => return Ok(()),
                    Some(line) => match Sentence::parse(&line?.unwrap_or_default()) {
                        Ok(Sentence::Ask { id: asked }) if asked == *id => {
                            lines.send(self.reading(*number, off, true).line()).await?;
                            *number += 1;
                        }
                        Ok(Sentence::Zero { id: asked }) if asked == *id => off = self.value(*number),
                        _ => {}
                    },
                },
            }
        }
    }

    fn value(&self, number: u64) -> f64 {
        let count = self.values.len().max(1) as u64;
        self.values.get((number % count) as usize).copied().unwrap_or(0.0)
    }

    fn reading(&self, number: u64, off: f64, held: bool) -> Sentence {
        let reading =
            Reading { number, value: self.value(number) - off, unit: self.announced.unit, held, place: None };
        Sentence::Reading { id: self.announced.id.clone(), reading }
    }

    /// Speaks to whoever connects, one after another, for ever.
    ///
    /// # Errors
    /// Where nobody can connect any more.
    pub async fn serve(&self, listener: &TcpListener) -> io::Result<()> {
        let mut number = 0;
        loop {
            let (stream, _) = listener.accept().await?;
            // A host that goes away comes back.
            let _ = self.speak(stream, &mut number).await;
        }
    }

    /// Speaks on a pseudo-terminal for ever; `reported` is given the path of its far end.
    ///
    /// # Errors
    /// Where none can be had.
    #[cfg(unix)]
    pub async fn serve_terminal(&self, reported: impl FnOnce(&str)) -> io::Result<()> {
        use tokio_serial::{SerialPort as _, SerialStream};
        let (mut near, mut far) = SerialStream::pair()?;
        far.set_exclusive(false)?;
        let path = far.name().unwrap_or_default();
        // The far end stays open here, as a plain file that keeps no host out: without it the near one fails whenever
        // a host lets go.
        let _far = std::fs::File::options().read(true).write(true).open(&path)?;
        drop(far);
        reported(&path);
        let mut number = 0;
        loop {
            self.speak(&mut near, &mut number).await?;
        }
    }
}
