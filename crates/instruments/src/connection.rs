//! Ways in: a TCP address, as a bridge to a serial line gives, or a serial device. Both are read by one reader, line by
//! line.

use std::fmt;
use std::io;

use thiserror::Error;
use tokio_util::bytes::BytesMut;
use tokio_util::codec::{Decoder, Encoder, LinesCodec, LinesCodecError};

use crate::message::LONGEST;
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::TcpStream;
use tokio_serial::SerialPortBuilderExt as _;

/// Bits a second of a serial line where nobody says.
const BAUD: u32 = 9600;

/// Where an instrument is reached.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Way {
    /// A host and its port.
    Tcp(String),
    /// A serial device, and bits a second.
    Serial(String, u32),
}

/// A way nobody can go.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error(
    "`{0}` is not a connection: write `tcp:HOST:PORT`, or `serial:/dev/DEVICE`, adding `@BAUD` if it is not 9600"
)]
pub struct WayFault(String);

/// Lines of text, one after another. A line that is too long or no text is told as None and passed over: what comes
/// behind it is read at once.
pub(crate) struct Lines(LinesCodec);

impl Lines {
    pub(crate) fn new() -> Self {
        Self(LinesCodec::new_with_max_length(LONGEST))
    }
}

impl Decoder for Lines {
    type Item = Option<String>;
    type Error = io::Error;

    fn decode(&mut self, bytes: &mut BytesMut) -> Result<Option<Self::Item>, io::Error> {
        match self.0.decode(bytes) {
            Ok(line) => Ok(line.map(Some)),
            Err(LinesCodecError::MaxLineLengthExceeded) => Ok(Some(None)),
            Err(LinesCodecError::Io(fault)) if fault.kind() == io::ErrorKind::InvalidData => Ok(Some(None)),
            Err(LinesCodecError::Io(fault)) => Err(fault),
        }
    }
}

impl Encoder<String> for Lines {
    type Error = io::Error;

    fn encode(&mut self, line: String, bytes: &mut BytesMut) -> Result<(), io::Error> {
        self.0.encode(line, bytes).map_err(io::Error::other)
    }
}

/// A line that is open.
pub(crate) trait Stream: AsyncRead + AsyncWrite + Send + Unpin {}

impl<S: AsyncRead + AsyncWrite + Send + Unpin> Stream for S {}

impl Way {
    /// Reads `tcp:HOST:PORT` or `serial:/dev/DEVICE@BAUD`.
    ///
    /// # Errors
    /// Where it is neither.
    pub fn parse(text: &str) -> Result<Self, WayFault> {
        let fault = || WayFault(text.to_owned());
        let text = text.trim();
        if let Some(address) = text.strip_prefix("tcp:") {
            let (host, port) = address.rsplit_once(':').ok_or_else(fault)?;
            let sound = !host.is_empty() && !host.contains(char::is_whitespace);
            let port = port.parse::<u16>().ok().filter(|port| sound && *port > 0).ok_or_else(fault)?;
            return Ok(Self::Tcp(format!("{host}:{port}")));
        }
        let device = text.strip_prefix("serial:").ok_or_else(fault)?;
        let (path, baud) = match device.split_once('@') {
            Some((path, baud)) => (path, baud.parse().ok().filter(|baud| *baud > 0).ok_or_else(fault)?),
            None => (device, BAUD),
        };
        // A device, and no other file.
        let is_device = path.starts_with("/dev/") && !path.split('/').any(|part| part == "..");
        if is_device { Ok(Self::Serial(path.to_owned(), baud)) } else { Err(fault()) }
    }

    /// Opens it.
    pub(crate) async fn open(&self) -> io::Result<Box<dyn Stream>> {
        match self {
            Self::Tcp(address) => {
                let stream = TcpStream::connect(address).await?;
                stream.set_nodelay(true)?;
                Ok(Box::new(stream))
            }
            Self::Serial(device, baud) => {
                let mut stream = tokio_serial::new(device, *baud).open_native_async()?;
                #[cfg(unix)]
                stream.set_exclusive(false)?;
                Ok(Box::new(stream))
            }
        }
    }
}

impl fmt::Display for Way {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Tcp(address) => write!(f, "tcp:{address}"),
            Self::Serial(device, BAUD) => write!(f, "serial:{device}"),
            Self::Serial(device, baud) => write!(f, "serial:{device}@{baud}"),
        }
    }
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;

    #[test]
    fn ways_are_read_and_printed_alike() {
        for text in ["tcp:127.0.0.1:7400", "tcp:[::1]:80", "serial:/dev/ttyUSB0", "serial:/dev/pts/3@115200"]
        {
            assert_eq!(Way::parse(text).unwrap().to_string(), text);
        }
        assert_eq!(Way::parse("serial:/dev/ttyS0@9600").unwrap().to_string(), "serial:/dev/ttyS0");
        for text in [
            "",
            "tcp:",
            "tcp:host",
            "tcp:host:0",
            "tcp:host:70000",
            "udp:a:1",
            "serial:ttyS0",
            "serial:/dev/../etc/x",
            "serial:/dev/a@fast",
        ] {
            assert!(Way::parse(text).is_err(), "{text}");
        }
    }
}
