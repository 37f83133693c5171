//! The finished binary serving a folder, for tests that kill it.

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

/// A running server that is killed when it goes out of use.
pub(crate) struct Server {
    child: Child,
    /// Such as `http://127.0.0.1:40123`.
    pub(crate) address: String,
}

impl Server {
    /// Starts on a port of its own, and waits until it says where it is open.
    pub(crate) fn start(data: &Path) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_derecho"))
            .args(["serve", "--listen", "127.0.0.1:0", "--data"])
            .arg(data)
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
        let address = line.trim().rsplit_once(' ').unwrap().1.trim_end_matches('/').to_owned();
        Self { child, address }
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        // SIGKILL: nothing is flushed or closed.
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
