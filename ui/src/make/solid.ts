// The 3D view: one mesh, a light, and turning it by drag or keys.
import {
  AmbientLight,
  Box3,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshStandardMaterial,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from 'three';
import { STLLoader } from 'three/addons/loaders/STLLoader.js';

export interface Shown {
  load: (url: string) => Promise<string>; // what hindered it, else empty
  turn: (right: number, up: number) => void;
  close: () => void;
}

/** Shows meshes in a box; null where the browser has no 3D. */
export function view(box: HTMLElement): Shown | null {
  let renderer: WebGLRenderer;
  try {
    renderer = new WebGLRenderer({ antialias: true, alpha: true });
  } catch {
    return null;
  }
  box.append(renderer.domElement);
  const scene = new Scene();
  const camera = new PerspectiveCamera(35, 1, 1, 2000);
  const held = new Group();
  held.rotation.set(-1, 0, 0.6);
  const sun = new DirectionalLight(0xffffff, 2.2);
  sun.position.set(60, 120, 200);
  scene.add(held, sun, new AmbientLight(0xffffff, 1.1));

  const draw = () => renderer.render(scene, camera);
  function fit() {
    renderer.setSize(box.clientWidth, box.clientHeight);
    camera.aspect = box.clientWidth / Math.max(1, box.clientHeight);
    camera.updateProjectionMatrix();
    draw();
  }
  const sizes = new ResizeObserver(fit);
  sizes.observe(box);

  function turn(right: number, up: number) {
    held.rotation.z += right;
    held.rotation.x = Math.min(0, Math.max(-Math.PI, held.rotation.x + up));
    draw();
  }
  let from: { x: number; y: number } | null = null;
  const down = (e: PointerEvent) => {
    from = { x: e.clientX, y: e.clientY };
    renderer.domElement.setPointerCapture(e.pointerId);
  };
  const move = (e: PointerEvent) => {
    if (!from) return;
    turn((e.clientX - from.x) / 120, (e.clientY - from.y) / 120);
    from = { x: e.clientX, y: e.clientY };
  };
  const up = () => (from = null);
  renderer.domElement.style.touchAction = 'none';
  renderer.domElement.addEventListener('pointerdown', down);
  renderer.domElement.addEventListener('pointermove', move);
  renderer.domElement.addEventListener('pointerup', up);

  let latest = '';
  return {
    async load(url) {
      latest = url;
      const answer = await fetch(url);
      if (latest !== url) return '';
      if (!answer.ok) return 'It could not be read for the 3D view.';
      const mesh = new STLLoader().parse(await answer.arrayBuffer());
      if (latest !== url) return '';
      const middle = new Box3().setFromBufferAttribute(mesh.getAttribute('position') as never);
      const centre = middle.getCenter(new Vector3());
      mesh.translate(-centre.x, -centre.y, -centre.z);
      held.clear();
      held.add(
        new Mesh(mesh, new MeshStandardMaterial({ color: new Color('#5f9aa2'), roughness: 0.8 })),
        new LineSegments(new EdgesGeometry(mesh, 30), new LineBasicMaterial({ color: new Color('#1d3138') })),
      );
      camera.position.set(0, 0, middle.getSize(new Vector3()).length() * 1.7);
      fit();
      return '';
    },
    turn,
    close() {
      sizes.disconnect();
      renderer.dispose();
      renderer.domElement.remove();
    },
  };
}
