//! Web: the pages and the JSON of Slow Rise. One room per screen; a number comes in as a form or as JSON,
//! goes through `craft`, is kept by `store`, and is shown here. Nothing is computed on this side.

pub mod access;
pub mod api;
pub mod batch;
pub mod figures;
pub mod formula_form;
pub mod rooms;
mod serve;
pub mod shared;
pub mod tls;

use access::asker::Askers;
use access::doors::{Asks, Door, Doors};
use access::gate::{self, Gate};
use access::sessions::Sessions;
use axum::Router;
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use batch::boxes::{BoxLooks, OpenedBakes};
use batch::forecast::Forecasts;
use batch::lessons::HeldLessons;
use batch::load::HeldPlaces;
use batch::record::Folds;
use craft::people::Lasting;
use rooms::scale::ScaleReads;
use shared::drawn::Drawn;
use shared::kitchen::HeldKitchens;
use shared::long::Models;
use shared::reckoned::Reckoned;
use shared::runs::WatchedRuns;
pub use shared::site::Site;
pub(crate) use shared::tongue::{phrase, text};
use shared::{assets, error, guard, theme, tongue};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;
use store::{BatchCache, Db};
use tower::ServiceBuilder;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer};
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::timeout::TimeoutLayer;
use tower_http::trace::TraceLayer;
use tower_sessions::SessionManagerLayer;
use tower_sessions::cookie::SameSite;

/// Parts of pages that are kept as they were drawn.
#[derive(Default)]
pub struct AllDrawn {
    /// The Bench's ribbon, its temperatures and its table.
    pub boards: Drawn<rooms::bench::view::Board>,
    /// What a batch weighs and how it goes, as its page shows it.
    pub sheets: Drawn<figures::ShownSheet>,
    /// What was done and seen of a batch, as its page lists it.
    pub told: Drawn<rooms::batch::view::BatchLines>,
    /// What a plan says of its bake.
    pub plans: Drawn<rooms::bake::view::BakePlan>,
    /// A line of the ledger.
    pub lines: Drawn<rooms::ledger::view::LedgerRow>,
}

impl AllDrawn {
    /// Throws all away.
    pub fn clear(&self) {
        self.boards.clear();
        self.sheets.clear();
        self.told.clear();
        self.plans.clear();
        self.lines.clear();
    }
}

/// What every handler may use; one for all of them.
#[derive(Clone)]
pub struct App(Arc<House>);

impl std::ops::Deref for App {
    type Target = House;
    fn deref(&self) -> &House {
        &self.0
    }
}

/// What stands behind an [`App`].
pub struct House {
    pub db: Db,
    /// Batches that were read before.
    pub held: BatchCache,
    /// Kitchens that were read a moment ago.
    pub kitchens: HeldKitchens,
    /// Who asked a moment ago.
    pub askers: Askers,
    /// Whether who comes must sign in; else it is the one at home.
    pub signs_in: bool,
    /// Whether there is anybody yet; once there is, there always is.
    inhabited: AtomicBool,
    /// What was entered about batches, folded.
    pub folds: Folds,
    /// Forecasts that were made a moment ago.
    pub forecasts: Forecasts,
    /// What kitchens' logs say.
    pub lessons: HeldLessons,
    /// Boxes that were looked at a moment ago.
    pub box_looks: BoxLooks,
    /// Bakes of pizzas that are opened narrower.
    pub opened_bakes: OpenedBakes,
    /// What was said of places, as it was read last.
    pub places: HeldPlaces,
    /// Sheets that were worked out a moment ago.
    pub reckoned: Reckoned,
    /// Pictures and tables that still hold.
    pub drawn: AllDrawn,
    /// Bakes that somebody watches.
    pub runs: Arc<WatchedRuns<rooms::bake::view::RunState>>,
    /// What the scale at the bench reads.
    pub scale: ScaleReads,
    /// Who works something out, and who waits for it.
    pub models: Models,
    /// Where this server is reached.
    pub site: Site,
}

impl App {
    /// Whether there is anybody yet; else the first start begins.
    pub async fn somebody_is_there(&self) -> bool {
        if self.inhabited.load(Ordering::Relaxed) {
            return true;
        }
        let nobody = match self.db.acquire().await {
            Ok(mut db) => store::people::person::nobody(&mut db).await,
            Err(e) => Err(e),
        };
        let there = !matches!(nobody, Ok(true));
        // A database that does not answer says nothing.
        if matches!(nobody, Ok(false)) {
            self.inhabited.store(true, Ordering::Relaxed);
        }
        there
    }
}

const POLICY: &str = "default-src 'self'; img-src 'self' data:; style-src 'self'; script-src 'self'; object-src 'none'; \
                      frame-ancestors 'none'; base-uri 'none'; form-action 'self'";
/// Browsers come by https alone for half a year.
const STRICT: &str = "max-age=15552000";
/// Nothing of these is used but the wake lock, at the oven.
const PERMISSIONS: &str = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=(), \
                           midi=(), display-capture=(), screen-wake-lock=(self)";

/// The whole program behind one router, for this machine alone and without sign-in.
pub fn router(db: Db) -> Router {
    router_at(db, Site::default(), SignIn::Off)
}

/// The same under the name that a site has.
pub fn router_at(db: Db, site: Site, sign_in: SignIn) -> Router {
    watched_router(db, site, sign_in, Arc::default())
}

/// Whether who comes must sign in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SignIn {
    On,
    /// Whoever comes is the one at home: for this machine alone.
    Off,
}

/// The doors of the pages, of the API and of what belongs to no kitchen.
fn doors() -> [Doors; 3] {
    let pages = Doors::new()
        .merge(rooms::bench::routes())
        .merge(rooms::sheet::routes())
        .merge(rooms::library::routes())
        .merge(rooms::pantry::routes())
        .merge(rooms::mix::routes())
        .merge(rooms::shape::routes())
        .merge(rooms::scale::routes())
        .merge(rooms::rise::routes())
        .merge(rooms::batch::routes())
        .merge(rooms::fire::routes())
        .merge(rooms::bake::routes())
        .merge(rooms::ledger::routes())
        .merge(rooms::lessons::routes())
        .merge(rooms::trials::routes())
        .merge(rooms::practice::routes())
        .merge(rooms::labels::routes())
        .merge(rooms::takeaway::routes())
        .merge(rooms::words::routes())
        .merge(rooms::begin::routes())
        .merge(rooms::entrance::routes())
        .merge(rooms::people::routes())
        .merge(theme::routes());
    let plain = shared::health::routes()
        .get(Asks::Nothing, "/assets/{tag}/{*path}", assets::serve)
        .get(Asks::Nothing, "/sw.js", assets::service_worker);
    [pages, api::routes(), plain]
}

/// Every door of the program, for whoever checks what each asks.
pub fn all_doors() -> Vec<Door> {
    doors().iter().flat_map(|d| d.list().to_vec()).collect()
}

/// The same, with the runs that end when the server stops.
fn watched_router(
    db: Db,
    site: Site,
    sign_in: SignIn,
    runs: Arc<WatchedRuns<rooms::bake::view::RunState>>,
) -> Router {
    let app = App(Arc::new(House {
        db,
        held: BatchCache::default(),
        kitchens: HeldKitchens::default(),
        askers: Askers::default(),
        signs_in: sign_in == SignIn::On,
        inhabited: AtomicBool::new(false),
        folds: Folds::default(),
        forecasts: Forecasts::default(),
        box_looks: BoxLooks::default(),
        lessons: HeldLessons::default(),
        opened_bakes: OpenedBakes::default(),
        places: HeldPlaces::default(),
        reckoned: Reckoned::default(),
        drawn: AllDrawn::default(),
        runs,
        scale: ScaleReads::default(),
        models: Models::default(),
        site,
    }));
    let known = app.clone();
    let request_id = header::HeaderName::from_static("x-request-id");
    let fixed =
        |name, value| SetResponseHeaderLayer::if_not_present(name, HeaderValue::from_static(value));
    // A browser that trusts nobody yet must come in the clear to a server with an authority of its own.
    let strict = (app.site.is_secure() && app.site.trust().is_none())
        .then(|| fixed(header::STRICT_TRANSPORT_SECURITY, STRICT));
    let [pages, api, plain] = doors();
    let sessions = sessions(&app);
    let (pages, api, plain) = (pages.apart(), api.apart(), plain.apart().0);
    let gate = |book| {
        let gate = Gate {
            app: app.clone(),
            book: Arc::new(book),
        };
        axum::middleware::from_fn_with_state(gate, gate::pass)
    };
    let pages = pages
        .0
        .route_layer(gate(pages.1))
        .fallback(error::nothing_here)
        // What a form held comes back when it could not be kept; foreign pages may not post.
        .layer(axum::middleware::from_fn(guard::keep_entries))
        .layer(axum::middleware::from_fn_with_state(
            app.clone(),
            guard::own_pages_only,
        ))
        .layer(sessions.clone());
    let api = api
        .0
        .route_layer(gate(api.1))
        .layer(axum::middleware::from_fn_with_state(
            app.clone(),
            guard::no_foreign_origin,
        ))
        .layer(sessions);
    Router::new()
        .merge(pages)
        .merge(api)
        .merge(plain)
        .layer(
            ServiceBuilder::new()
                // A reference is this server's own: what a client calls its request is nobody's business here.
                .layer(axum::middleware::map_request(guard::nameless))
                .layer(axum::middleware::from_fn(tongue::as_the_browser_says))
                .layer(SetRequestIdLayer::new(request_id.clone(), MakeRequestUuid))
                .layer(
                    TraceLayer::new_for_http()
                        .make_span_with(move |r: &_| guard::span(&known.site, r)),
                )
                .layer(PropagateRequestIdLayer::new(request_id))
                .layer(CompressionLayer::new().gzip(true).br(true))
                .layer(fixed(header::CONTENT_SECURITY_POLICY, POLICY))
                .layer(fixed(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
                .layer(fixed(header::REFERRER_POLICY, "same-origin"))
                .layer(fixed(header::CACHE_CONTROL, "no-store"))
                .layer(fixed(named("cross-origin-opener-policy"), "same-origin"))
                .layer(fixed(named("cross-origin-resource-policy"), "same-origin"))
                .layer(fixed(named("permissions-policy"), PERMISSIONS))
                .option_layer(strict)
                .layer(axum::middleware::from_fn(error::dressed))
                .layer(axum::middleware::from_fn_with_state(
                    app.clone(),
                    guard::own_host,
                ))
                .layer(axum::middleware::from_fn(guard::secured_alone))
                .layer(TimeoutLayer::with_status_code(
                    StatusCode::SERVICE_UNAVAILABLE,
                    Duration::from_secs(15),
                ))
                .layer(CatchPanicLayer::custom(error::panicked)),
        )
        .with_state(app)
}

/// Sessions of browsers, in cookies that scripts do not see and other sites do not send.
fn sessions(app: &App) -> SessionManagerLayer<Sessions> {
    let secure = app.site.is_secure();
    // The prefix makes browsers refuse it from any other name or path.
    let name = if secure {
        "__Host-slow-rise"
    } else {
        "slow-rise"
    };
    SessionManagerLayer::new(Sessions(app.db.clone()))
        .with_name(name)
        .with_secure(secure)
        .with_same_site(SameSite::Lax)
        .with_expiry(gate::idle(Lasting::IdleSession))
}

fn named(name: &'static str) -> HeaderName {
    HeaderName::from_static(name)
}

/// Serves the program until `stop` comes, then lets running answers end.
pub async fn serve(
    listener: tokio::net::TcpListener,
    db: Db,
    (site, sign_in): (Site, SignIn),
    stop: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let runs: Arc<WatchedRuns<rooms::bake::view::RunState>> = Arc::default();
    let site = site.listening(listener.local_addr().ok());
    let certificates = site.certificates();
    let router = watched_router(db, site, sign_in, runs.clone());
    let stop = async move {
        stop.await;
        runs.close();
    };
    let fresh = async {
        match certificates.clone() {
            Some(c) => c.keep_fresh().await,
            None => std::future::pending().await,
        }
    };
    tokio::select! {
        ended = serve::serve(listener, (router, certificates.clone()), stop) => ended,
        () = fresh => Ok(()),
    }
}
