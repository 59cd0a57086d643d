import { useEffect, useRef } from 'react';
import {
  AmbientLight,
  Box3,
  BufferGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene as Stage,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { meshOf, paints, type Scene } from '../../../core/drawing';
import css from './space.module.css';

interface Props {
  scene: Scene;
  label: string;
  hint: string;
}

/** The build in space: dragged or turned with the arrow keys, nearer and farther with plus and minus. */
export default function Space({ scene, label, hint }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const stand = useRef<Stand | null>(null);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const made = Stand.on(element);
    stand.current = made;
    return () => {
      stand.current = null;
      made?.close();
    };
  }, []);
  useEffect(() => stand.current?.show(scene), [scene]);
  return (
    <div
      ref={holder}
      className={css.space}
      role="img"
      aria-label={`${label}. ${hint}`}
      tabIndex={0}
      title={hint}
      onKeyDown={(event) => {
        if (stand.current?.key(event.key)) event.preventDefault();
      }}
    />
  );
}

/** The stage, its lights and its camera. */
class Stand {
  private readonly stage = new Stage();
  private readonly camera = new PerspectiveCamera(32, 1, 10, 400_000);
  private group = new Group();
  private framed = false;

  private constructor(
    private readonly renderer: WebGLRenderer,
    private readonly controls: (camera: PerspectiveCamera) => OrbitControls,
    private readonly element: HTMLElement,
  ) {
    this.camera.up.set(0, 0, 1);
    this.stage.add(new AmbientLight(0xffffff, 1.6));
    const sun = new DirectionalLight(0xffffff, 2);
    sun.position.set(-0.5, -1, 1.4);
    this.stage.add(sun, this.group);
    this.orbit = this.controls(this.camera);
    this.orbit.addEventListener('change', () => this.paint());
    this.sizes = new ResizeObserver(() => this.fit());
    this.sizes.observe(element);
    this.fit();
  }

  private readonly orbit: OrbitControls;
  private readonly sizes: ResizeObserver;

  /** Null where the browser cannot draw in space. */
  static on(element: HTMLElement): Stand | null {
    try {
      const renderer = new WebGLRenderer({ antialias: true, alpha: true });
      element.append(renderer.domElement);
      return new Stand(renderer, (camera) => new OrbitControls(camera, renderer.domElement), element);
    } catch {
      element.dataset.flat = 'true';
      return null;
    }
  }

  show(scene: Scene): void {
    this.stage.remove(this.group);
    this.group = new Group();
    const edge = new LineBasicMaterial({ color: new Color('#3a3f44'), transparent: true, opacity: 0.55 });
    for (const solid of scene.solids) {
      if (solid.views && !solid.views.includes('space')) continue;
      const { positions, normals } = meshOf(solid);
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
      geometry.setAttribute('normal', new Float32BufferAttribute(normals, 3));
      const glassy = solid.looks === 'glass';
      this.group.add(
        new Mesh(
          geometry,
          new MeshLambertMaterial({
            color: new Color(paints[solid.looks]),
            transparent: glassy,
            opacity: glassy ? 0.75 : 1,
          }),
        ),
      );
      this.group.add(new LineSegments(new EdgesGeometry(geometry, 30), edge));
    }
    this.stage.add(this.group);
    if (!this.framed) this.frame();
    this.paint();
  }

  key(key: string): boolean {
    const turn: Record<string, [number, number]> = {
      ArrowLeft: [-0.2, 0],
      ArrowRight: [0.2, 0],
      ArrowUp: [0, 0.15],
      ArrowDown: [0, -0.15],
    };
    const way = turn[key];
    const offset = this.camera.position.clone().sub(this.orbit.target);
    if (way) {
      offset.applyAxisAngle(new Vector3(0, 0, 1), way[0]);
      offset.z = Math.max(offset.length() * 0.05, offset.z + way[1] * offset.length());
    } else if (key === '+' || key === '-') offset.multiplyScalar(key === '+' ? 0.85 : 1.18);
    else return false;
    this.camera.position.copy(this.orbit.target).add(offset);
    this.orbit.update();
    this.paint();
    return true;
  }

  close(): void {
    this.sizes.disconnect();
    this.orbit.dispose();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  private fit(): void {
    const { clientWidth: width, clientHeight: height } = this.element;
    if (width === 0 || height === 0) return;
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.paint();
  }

  /** Stands so far away that the whole of it is seen. */
  private frame(): void {
    const box = new Box3().setFromObject(this.group);
    if (box.isEmpty()) return;
    const [middle, size] = [box.getCenter(new Vector3()), box.getSize(new Vector3())];
    this.orbit.target.copy(middle);
    this.camera.position
      .copy(middle)
      .add(new Vector3(-0.55, -1, 0.62).normalize().multiplyScalar(size.length() * 1.1));
    this.orbit.update();
    this.framed = true;
  }

  private paint(): void {
    this.renderer.render(this.stage, this.camera);
  }
}
