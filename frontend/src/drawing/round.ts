/** A body in the round, drawn by three.js: turned, brought nearer, cut open, and asked which of its parts lies where. */
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Group,
  Line,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import { toCreasedNormals } from "three/examples/jsm/utils/BufferGeometryUtils.js";
import type { RoundView } from "@/api/types";
import { FIRST, type Look } from "./look";

type RoundPart = RoundView["parts"][number];
const CREASE = 0.6;
const EDGE_DEGREES = 38;
const LENS_DEGREES = 28;
const ROOM = 0.88;
/** How much of the colour of what is picked is laid over its own. */
const PICKED = 0.5;

/** Whole numbers of 16 bits out of base 64. */
function numbers<T>(text: string, of: new (bytes: ArrayBuffer) => T): T {
  return new of(Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0)).buffer);
}

function geometryOf(part: RoundPart): BufferGeometry {
  const found = new BufferGeometry();
  const steps = numbers(part.corners, Int16Array);
  const corners = Float32Array.from(steps, (step) => step * part.step_mm);
  found.setAttribute("position", new BufferAttribute(corners, 3));
  found.setIndex(new BufferAttribute(numbers(part.triangles, Uint16Array), 1));
  return found;
}

/** What draws on a canvas. Throws where the browser draws nothing in the round. */
export class Stage {
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(LENS_DEGREES, 1, 1, 10_000);
  private readonly renderer: WebGLRenderer;
  private readonly body = new Group();
  private readonly middle = new Vector3();
  private radius = 100;
  private look: Look = FIRST;
  private asked = 0;

  constructor(
    canvas: HTMLCanvasElement,
    private readonly ink: string,
    private readonly picked: string,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.camera.up.set(0, 0, 1);
    // Soft light from upper left, as on every drawing.
    const sun = new DirectionalLight(0xfff4e0, 2.1);
    sun.position.set(-1.4, -1.6, 2.2);
    const fill = new DirectionalLight(0xffffff, 0.7);
    fill.position.set(2, -0.6, 0.6);
    this.scene.add(new AmbientLight(0xffffff, 1.25), sun, fill, this.body);
  }

  show(view: RoundView, chosen: number): void {
    this.body.clear();
    const box = new Box3(new Vector3(...view.least), new Vector3(...view.most));
    box.getCenter(this.middle);
    this.radius = box.getSize(new Vector3()).length() / 2;
    for (const part of view.parts) {
      const shape = geometryOf(part);
      const material = new MeshLambertMaterial({ color: new Color(part.hex) });
      const solid = new Mesh(toCreasedNormals(shape, CREASE), material);
      solid.userData = { matter: part.matter, number: part.number, hex: part.hex };
      const line = new LineBasicMaterial({ color: new Color(this.ink) });
      this.body.add(solid, new LineSegments(new EdgesGeometry(shape, EDGE_DEGREES), line));
    }
    for (const seam of view.seams) {
      const points = seam.line.map(([x = 0, y = 0, z = 0]) => new Vector3(x, y, z));
      const line = new LineBasicMaterial({ color: new Color(this.picked) });
      this.body.add(new Line(new BufferGeometry().setFromPoints(points), line));
    }
    this.choose(chosen);
  }

  /** Show which layer is looked at. */
  choose(number: number): void {
    for (const one of this.body.children) {
      if (!(one instanceof Mesh)) continue;
      const { matter, number: own, hex } = one.userData as { matter: string; number: number; hex: string };
      const chosen = matter === "cake" && own === number;
      const { color } = one.material as MeshLambertMaterial;
      color.set(hex);
      if (chosen) color.lerp(new Color(this.picked), PICKED);
    }
    this.draw();
  }

  turnTo(look: Look): void {
    this.look = look;
    this.draw();
  }

  resize(wide: number, high: number): void {
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(wide, high, false);
    this.camera.aspect = wide / Math.max(1, high);
    this.draw();
  }

  /** The layer at a place of the canvas, its left and top being 0 and its right and foot 1; nothing elsewhere. */
  layerAt(right: number, down: number): number | null {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(2 * right - 1, 1 - 2 * down), this.camera);
    const [first] = ray.intersectObjects(this.body.children.filter((one) => one instanceof Mesh));
    const data = first?.object.userData as { matter: string; number: number } | undefined;
    return data?.matter === "cake" ? data.number : null;
  }

  /** Drawn once before the screen is next painted, however often it was asked for. */
  private draw(): void {
    cancelAnimationFrame(this.asked);
    this.asked = requestAnimationFrame(() => {
      const { turn, tip, far } = this.look;
      const narrow = Math.min(1, this.camera.aspect);
      const angle = (LENS_DEGREES * Math.PI) / 360;
      const away = (far * ROOM * this.radius) / Math.sin(angle) / narrow;
      const place = new Vector3(
        Math.sin(turn) * Math.cos(tip),
        -Math.cos(turn) * Math.cos(tip),
        Math.sin(tip),
      );
      this.camera.position.copy(this.middle).addScaledVector(place, away);
      this.camera.near = Math.max(1, away - 3 * this.radius);
      this.camera.far = away + 3 * this.radius;
      this.camera.lookAt(this.middle);
      this.camera.updateProjectionMatrix();
      this.renderer.render(this.scene, this.camera);
    });
  }

  end(): void {
    cancelAnimationFrame(this.asked);
    this.renderer.dispose();
  }
}
