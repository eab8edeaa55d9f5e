import "./styles.css";
import { lazy, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, Outlet, RouterProvider } from "react-router";
import { DeckProvider } from "./deck/DeckContext";
import "./shell/appearance";

const Desk = lazy(() => import("./desk/Desk"));
const Write = lazy(() => import("./write/Write"));
const Arrange = lazy(() => import("./arrange/Arrange"));
const Refine = lazy(() => import("./refine/Refine"));
const Speak = lazy(() => import("./speak/Speak"));
const Hall = lazy(() => import("./speak/Hall"));
const Deliver = lazy(() => import("./deliver/Deliver"));

const waiting = (
  <main className="grid h-full place-items-center" aria-busy="true">
    <p className="quiet">One moment …</p>
  </main>
);

const router = createBrowserRouter([
  { path: "/", element: <Desk /> },
  {
    path: "/decks/:deck",
    element: (
      <DeckProvider>
        <Suspense fallback={waiting}>
          <Outlet />
        </Suspense>
      </DeckProvider>
    ),
    children: [
      { index: true, element: <Navigate to="write" replace /> },
      { path: "write", element: <Write /> },
      { path: "arrange", element: <Arrange /> },
      { path: "refine/:slide?", element: <Refine /> },
      { path: "speak", element: <Speak /> },
      { path: "hall", element: <Hall /> },
      { path: "deliver", element: <Deliver /> },
    ],
  },
  { path: "*", element: <Navigate to="/" replace /> },
]);

createRoot(document.getElementById("root") as HTMLElement).render(
  <Suspense fallback={waiting}>
    <RouterProvider router={router} />
  </Suspense>,
);
