//! The stops of the line of work.

use crate::shared::tongue::phrase;
use craft::sheet::progress::Stand;

/// The stops of the line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stop {
    Bench,
    Sheet,
    Mix,
    Rise,
    Shape,
    Fire,
    Bake,
    Ledger,
}

impl Stop {
    pub(super) const ALL: [Stop; 8] = [
        Stop::Bench,
        Stop::Sheet,
        Stop::Mix,
        Stop::Rise,
        Stop::Shape,
        Stop::Fire,
        Stop::Bake,
        Stop::Ledger,
    ];

    pub(super) fn name(self) -> &'static str {
        match self {
            Stop::Bench => phrase("page-bench"),
            Stop::Sheet => phrase("rise-dough-sheet"),
            Stop::Mix => phrase("page-mix"),
            Stop::Rise => phrase("batch-rise"),
            Stop::Shape => phrase("page-stop-shape"),
            Stop::Fire => phrase("bake-fire"),
            Stop::Bake => phrase("bake-bake"),
            Stop::Ledger => phrase("ledger-ledger"),
        }
    }

    /// Where it leads; the stops that are not built yet lead to nothing.
    pub(super) fn href(self, code: Option<&str>) -> Option<String> {
        match (self, code) {
            (Stop::Bench, _) => Some("/".into()),
            (Stop::Sheet, Some(code)) => Some(format!("/batches/{code}")),
            (Stop::Sheet, None) => Some("/dough/new".into()),
            (Stop::Bake, Some(code)) => Some(format!("/batches/{code}/bake")),
            (Stop::Bake, None) => Some("/bake".into()),
            (Stop::Ledger, _) => Some("/ledger".into()),
            (Stop::Rise, Some(code)) => Some(format!("/batches/{code}/rise")),
            (Stop::Rise, None) => Some("/rise".into()),
            (Stop::Fire, Some(code)) => Some(format!("/batches/{code}/fire")),
            (Stop::Fire, None) => Some("/fire".into()),
            (Stop::Mix, Some(code)) => Some(format!("/batches/{code}/mix")),
            (Stop::Mix, None) => Some("/mix".into()),
            (Stop::Shape, Some(code)) => Some(format!("/batches/{code}/shape")),
            (Stop::Shape, None) => Some("/shape".into()),
        }
    }

    /// How far along the line a batch has come.
    pub fn reached(stand: Stand) -> Stop {
        match stand {
            Stand::Planned | Stand::Begun => Stop::Sheet,
            Stand::Mixing | Stand::Mixed => Stop::Mix,
            Stand::Bulk => Stop::Rise,
            Stand::Balled | Stand::Cold => Stop::Shape,
            Stand::Tempering => Stop::Fire,
            Stand::Baking => Stop::Bake,
            Stand::Finished => Stop::Ledger,
        }
    }
}
