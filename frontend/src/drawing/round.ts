/** A body in the round, drawn by three.js: turned, brought nearer, cut open, and asked which of its parts lies where. */
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
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
import type { Level, RoundView } from "@/api/types";
import { FIRST, type Look } from "./look";
import { hexOf } from "./tone";

type RoundPart = RoundView["parts"][number];
/** What is drawn besides the tier itself: the tins about its layers, and how much its cover gives. */
export interface Shown {
  tins: boolean;
  gives: boolean;
}
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

function geometryOf(part: Pick<RoundPart, "corners" | "triangles" | "step_mm">): BufferGeometry {
  const found = new BufferGeometry();
  const steps = numbers(part.corners, Int16Array);
  const corners = Float32Array.from(steps, (step) => step * part.step_mm);
  found.setAttribute("position", new BufferAttribute(corners, 3));
  found.setIndex(new BufferAttribute(numbers(part.triangles, Uint16Array), 1));
  return found;
}

/** How a triangle is told that gives as much as may be. */
const MOST = 127;

/** What a cover gives, painted: paper where it lies as it was rolled, of one colour to where it is drawn out most and of
 * another to where it is taken in most. */
function painted(stretch: RoundView["stretch"][number], out: string, taken: string, beyond: string): Mesh {
  const shape = geometryOf(stretch).toNonIndexed();
  const strains = numbers(stretch.strains, Int8Array);
  const [none, over] = [new Color(0xfbf7ee), new Color(beyond)];
  const [drawn, gathered] = [new Color(out), new Color(taken)];
  const colours = new Float32Array(strains.length * 9);
  strains.forEach((strain, at) => {
    const colour =
      strain === MOST ? over : none.clone().lerp(strain > 0 ? drawn : gathered, Math.abs(strain) / MOST);
    for (let corner = 0; corner < 3; corner += 1) colour.toArray(colours, at * 9 + corner * 3);
  });
  shape.setAttribute("color", new BufferAttribute(colours, 3));
  shape.computeVertexNormals();
  return new Mesh(shape, new MeshLambertMaterial({ vertexColors: true, side: DoubleSide }));
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
  private size = { width: 1, height: 1 };

  constructor(
    canvas: HTMLCanvasElement,
    private readonly ink: string,
    private readonly picked: string,
    private readonly steel: string,
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

  show(view: RoundView, chosen: number, shown: Shown): void {
    this.body.clear();
    const box = new Box3(new Vector3(...view.least), new Vector3(...view.most));
    box.getCenter(this.middle);
    this.radius = box.getSize(new Vector3()).length() / 2;
    for (const part of view.parts) {
      const shape = geometryOf(part);
      const material = new MeshLambertMaterial({ color: new Color(hexOf(part.paint)) });
      const solid = new Mesh(toCreasedNormals(shape, CREASE), material);
      solid.userData = { matter: part.matter, number: part.number, hex: hexOf(part.paint) };
      const line = new LineBasicMaterial({ color: new Color(this.ink) });
      this.body.add(solid, new LineSegments(new EdgesGeometry(shape, EDGE_DEGREES), line));
    }
    for (const seam of view.seams) this.body.add(this.line(seam.line, this.picked));
    if (shown.gives && view.stretch.length) {
      // Seen by itself: its triangles are larger than those of what lies below, which would show through.
      for (const one of this.body.children)
        one.visible = one instanceof Line && !(one instanceof LineSegments);
      for (const one of view.stretch) this.body.add(painted(one, this.picked, this.steel, this.ink));
    }
    for (const tin of shown.tins ? view.tins : [])
      for (const points of tin.lines) {
        const line = this.line(points, this.steel);
        line.userData = { tin: tin.layer };
        this.body.add(line);
      }
    this.choose(chosen);
  }

  /** Where it is sliced, as a path over the canvas: it is seen through all that lies before it, so that nothing else
   * has to be drawn again, which takes long without a graphics card. */
  path(level: Level): string {
    this.aim();
    const { width, height } = this.size;
    const place = (x: number, y: number): string => {
      const { x: right, y: up } = new Vector3(x, y, level.up_mm).project(this.camera);
      return `${(((1 + right) / 2) * width).toFixed(1)} ${(((1 - up) / 2) * height).toFixed(1)}`;
    };
    return level.rings.map((ring) => `M${ring.map(([x = 0, y = 0]) => place(x, y)).join("L")}Z`).join("");
  }

  private line(points: readonly (readonly number[])[], colour: string): Line {
    const places = points.map(([x = 0, y = 0, z = 0]) => new Vector3(x, y, z));
    const drawn = new LineBasicMaterial({ color: new Color(colour), transparent: true });
    return new Line(new BufferGeometry().setFromPoints(places), drawn);
  }

  /** Show which layer is looked at. */
  choose(number: number): void {
    for (const one of this.body.children) {
      // The tin of the layer that is looked at is drawn through all that lies before it, the others faintly.
      if (one instanceof Line && "tin" in one.userData) {
        const drawn = one.material as LineBasicMaterial;
        const own = one.userData.tin === number;
        drawn.opacity = own ? 1 : 0.3;
        drawn.depthTest = !own;
        drawn.needsUpdate = true;
      }
      if (!(one instanceof Mesh) || !("matter" in one.userData)) continue;
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
    this.size = { width: wide, height: high };
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
      this.aim();
      this.renderer.render(this.scene, this.camera);
    });
  }

  /** Look at it from where it is looked at now. */
  private aim(): void {
    const { turn, tip, far } = this.look;
    const narrow = Math.min(1, this.camera.aspect);
    const angle = (LENS_DEGREES * Math.PI) / 360;
    const away = (far * ROOM * this.radius) / Math.sin(angle) / narrow;
    const place = new Vector3(Math.sin(turn) * Math.cos(tip), -Math.cos(turn) * Math.cos(tip), Math.sin(tip));
    this.camera.position.copy(this.middle).addScaledVector(place, away);
    this.camera.near = Math.max(1, away - 3 * this.radius);
    this.camera.far = away + 3 * this.radius;
    this.camera.lookAt(this.middle);
    this.camera.updateMatrixWorld();
    this.camera.updateProjectionMatrix();
  }

  end(): void {
    cancelAnimationFrame(this.asked);
    this.renderer.dispose();
  }
}
