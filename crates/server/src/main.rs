//! The `derecho` program. Everything is in the library, where tests reach it.

use std::process::ExitCode;

fn main() -> ExitCode {
    derecho_server::cli::run()
}
