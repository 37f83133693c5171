//! Whose English an answer is in: the one asked for in the address, or the one chosen on the device, which its cookie
//! says.

use axum::extract::Request;
use axum::http::header;
use axum::middleware::Next;
use axum::response::Response;
use derecho_words::{English, current_english};

tokio::task_local! {
    static CHOSEN: English;
}

/// The English of the request that is answered; the thread's own where none is.
#[must_use]
pub fn chosen() -> English {
    CHOSEN.try_with(|english| *english).unwrap_or_else(|_| current_english())
}

/// A text of the program's own, in the English of the request that is answered.
#[must_use]
pub fn in_own_words(text: &str) -> String {
    chosen().say(text)
}

/// Answers a request in the English it asks for.
pub async fn in_chosen_english(request: Request, next: Next) -> Response {
    let english = asked(&request);
    CHOSEN.scope(english, next.run(request)).await
}

/// `?english=uk` in the address, else the cookie `english=uk`, else the US.
fn asked(request: &Request) -> English {
    let named = |pairs: &str, between: char| {
        let found = pairs.split(between).find_map(|pair| pair.trim().strip_prefix("english="));
        found.and_then(|code| code.parse().ok())
    };
    let cookies = || {
        let mut lines =
            request.headers().get_all(header::COOKIE).iter().filter_map(|line| line.to_str().ok());
        lines.find_map(|line| named(line, ';'))
    };
    request.uri().query().and_then(|query| named(query, '&')).or_else(cookies).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use axum::body::Body;

    fn asked_by(address: &str, cookie: &str) -> English {
        asked(&Request::builder().uri(address).header("cookie", cookie).body(Body::empty()).unwrap())
    }

    #[test]
    fn the_address_comes_before_the_cookie() {
        assert_eq!(asked_by("/card.pdf?english=au", "english=uk"), English::Au);
        assert_eq!(asked_by("/card.pdf?paper=a4", "theme=night; english=uk"), English::Uk);
        assert_eq!(asked_by("/card.pdf", "english=klingon"), English::Us);
        assert_eq!(asked_by("/card.pdf", ""), English::Us);
    }
}
