import "./styles.css";
import { lazy, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, Outlet, RouterProvider } from "react-router";
import { requestAhead } from "./api/ahead";
import "./shell/appearance";
import { ErrorPage } from "./shell/ErrorPage";

// The text editor parses in the background for 100 ms at a time where it may ask for waiting input, and for 25 ms where
// it may not; the page must never block for longer than 50.
Object.defineProperty(navigator, "scheduling", { value: undefined });

// A file that is dropped where no place takes it does not replace the page.
for (const kind of ["dragover", "drop"])
  window.addEventListener(kind, (event) => {
    if ((event as DragEvent).dataTransfer?.types.includes("Files")) event.preventDefault();
  });

// What the page shows is requested while its script is loaded.
const [, deckShown, placeShown] = /^\/decks\/([^/]+)(?:\/([^/]+))?/.exec(location.pathname) ?? [];
const [, linkShown] = /^\/view\/([^/]+)$/.exec(location.pathname) ?? [];
if (linkShown) requestAhead(`/links/${linkShown}`);
else if (deckShown && placeShown === "view") requestAhead(`/decks/${deckShown}/look`);
else if (deckShown) requestAhead(`/decks/${deckShown}`);
else if (location.pathname === "/") {
  requestAhead("/decks");
  void import("./desk/Desk");
}

// Names of decks and slides may be in any script; the faces are declared once the page is at rest.
setTimeout(() => void import("./shell/otherscripts").then((module) => module.declareOtherScripts()), 1500);

const DeckProvider = lazy(() => import("./deck/DeckContext").then((module) => ({ default: module.DeckProvider })));
const DeckPlaces = lazy(() => import("./shell/DeckFrame").then((module) => ({ default: module.DeckPlaces })));
/** The scripts of the places. */
const load = {
  desk: () => import("./desk/Desk"),
  write: () => import("./write/Write"),
  arrange: () => import("./arrange/Arrange"),
  refine: () => import("./refine/Refine"),
  data: () => import("./data/Data"),
  translate: () => import("./translate/Translate"),
  speak: () => import("./speak/Speak"),
  deliver: () => import("./deliver/Deliver"),
};
const Desk = lazy(load.desk);
const Write = lazy(load.write);
const Arrange = lazy(load.arrange);
const Refine = lazy(load.refine);
const Data = lazy(load.data);
const Translate = lazy(load.translate);
const Speak = lazy(load.speak);
const Deliver = lazy(load.deliver);
const NotesPage = lazy(() => import("./arrange/NotesPage"));
const Split = lazy(() => import("./arrange/Split"));
const BringIn = lazy(() => import("./arrange/BringIn"));
const Versions = lazy(() => import("./versions/Versions"));
const Gather = lazy(() => import("./gather/Gather"));
const FilmPage = lazy(() => import("./film/FilmPage"));
const SideBySide = lazy(() => import("./translate/SideBySide"));
const Hall = lazy(() => import("./speak/Hall"));
const Phone = lazy(() => import("./speak/Phone"));
const View = lazy(() => import("./view/View"));
const PageView = lazy(() => import("./view/PageView"));
const DeckView = lazy(() => import("./view/DeckView"));
const SignIn = lazy(() => import("./people/SignIn"));
const Setup = lazy(() => import("./people/Setup"));
const AccountLinkPage = lazy(() => import("./people/AccountLinkPage"));
const AccountPage = lazy(() => import("./people/AccountPage"));
const Collections = lazy(() => import("./collect/Collections"));
const CollectionPage = lazy(() => import("./collect/CollectionPage"));
const HandInPage = lazy(() => import("./collect/HandInPage"));
const HousePage = lazy(() => import("./people/HousePage"));

// The other places of a deck are fetched when nothing else is done, one after another, so that they open at once.
setTimeout(async () => {
  // The hall's window, the phone, and pages for visitors stay where they are.
  if (/\/(hall|remote|view|page|hand-in|sign-in|setup|join|reset)\b/.test(location.pathname)) return;
  for (const place of Object.values(load)) {
    await new Promise((resolve) =>
      "requestIdleCallback" in window ? requestIdleCallback(resolve) : setTimeout(resolve, 200),
    );
    await place().catch(() => undefined);
  }
}, 4000);

const waiting = (
  <main className="grid h-full place-items-center" aria-busy="true">
    <p className="quiet">One moment …</p>
  </main>
);

const router = createBrowserRouter([
  { path: "/", element: <Desk />, errorElement: <ErrorPage /> },
  { path: "/gather", element: <Gather />, errorElement: <ErrorPage /> },
  {
    path: "/decks/:deck",
    errorElement: <ErrorPage />,
    element: (
      <DeckProvider>
        <Suspense fallback={waiting}>
          <Outlet />
        </Suspense>
      </DeckProvider>
    ),
    children: [
      { index: true, element: <Navigate to="write" replace /> },
      { path: "hall", element: <Hall /> },
      {
        element: <DeckPlaces />,
        children: [
          { path: "write", element: <Write /> },
          { path: "arrange", element: <Arrange /> },
          { path: "arrange/notes", element: <NotesPage /> },
          { path: "arrange/split", element: <Split /> },
          { path: "arrange/gather", element: <BringIn /> },
          { path: "arrange/versions", element: <Versions /> },
          { path: "refine/:slide?", element: <Refine /> },
          { path: "data", element: <Data /> },
          { path: "translate", element: <Translate /> },
          { path: "translate/slides", element: <SideBySide /> },
          { path: "speak", element: <Speak /> },
          { path: "deliver", element: <Deliver /> },
          { path: "deliver/film", element: <FilmPage /> },
        ],
      },
    ],
  },
  { path: "/decks/:deck/view", element: <DeckView />, errorElement: <ErrorPage /> },
  { path: "/page/:page", element: <PageView />, errorElement: <ErrorPage /> },
  { path: "/view/:token", element: <View />, errorElement: <ErrorPage /> },
  { path: "/sign-in", element: <SignIn />, errorElement: <ErrorPage /> },
  { path: "/setup", element: <Setup />, errorElement: <ErrorPage /> },
  { path: "/join/:token", element: <AccountLinkPage />, errorElement: <ErrorPage /> },
  { path: "/reset/:token", element: <AccountLinkPage />, errorElement: <ErrorPage /> },
  { path: "/account", element: <AccountPage />, errorElement: <ErrorPage /> },
  { path: "/house", element: <HousePage />, errorElement: <ErrorPage /> },
  { path: "/collections", element: <Collections />, errorElement: <ErrorPage /> },
  { path: "/collections/:collection", element: <CollectionPage />, errorElement: <ErrorPage /> },
  { path: "/hand-in/:token", element: <HandInPage />, errorElement: <ErrorPage /> },
  { path: "/remote/:token", element: <Phone />, errorElement: <ErrorPage /> },
  { path: "*", element: <Navigate to="/" replace /> },
]);

createRoot(document.getElementById("root") as HTMLElement).render(
  <Suspense fallback={waiting}>
    <RouterProvider router={router} />
  </Suspense>,
);
