//! Shape: what the scale says of a dough that is divided, how many balls lie in a box, when each box leaves the cold, and how
//! this dough opens now.
//!
//! | module | answers |
//! |---|---|
//! | `divide` | the dough on the scale against its plan, what stays on bowl and hands, what to do with a remainder |
//! | `tally` | pieces one by one: which is off, what the last ones come to |
//! | `boxes` | how many balls in a box, which box they lie in |
//! | `stagger` | when each box leaves the cold so that it stands at 100 when it is used |
//! | `disc` | from a ball to a disc: grams on a square centimetre, millimetres |
//! | `open` | when it opens, and how |
//! | `press` | what a press test tells of a flour |
//! | `tray` | oil, stretches and rests of a dough in its tray |
//! | `reball` | what balling again does |
//! | `run` | the same as it goes: folded from the taps at the scale and at the boxes |
//!
//! Source: mixing and shaping, sections 8 to 12.

mod boxes;
mod disc;
mod divide;
mod open;
mod press;
mod reball;
pub mod run;
mod stagger;
mod tally;
mod tray;

pub use boxes::{BoxGrid, BoxSpace, BoxedBall, LaidBoxes, ROOMY_GAP_CM, lay_boxes};
pub use disc::{Disc, disc};
pub use divide::{
    DivideChoice, DividePlan, Divided, Loss, OnTheScale, WholePieces, divide, learn_loss,
};
pub use open::{
    HowOpened, OpenHow, OpenNow, Opening, Relaxing, cold_stiffness, how_to_open, minutes_until_open,
};
pub use press::{
    FlourFactor, FlourTest, PressSign, PressedDough, RelaxTest, ReserveTest, flour_of_tests,
    flour_said, relaxes, reserve_of,
};
pub use reball::{Reballed, reball};
pub use stagger::{
    BoxService, ColdBox, OPENS_C, OutState, TakeOut, TakenOut, rounds_of, stagger, stagger_at,
    tau_h, to_five,
};
pub use tally::{PieceTally, is_marked, mark_g, tally};
pub use tray::{TrayStand, TrayWork, tray_oil_g};
