const paths = new Map<string, Path2D>();

/** A Path2D for path data, kept for the most recent shapes. */
export function path2d(data: string): Path2D {
  let path = paths.get(data);
  if (!path) {
    if (paths.size > 600) paths.clear();
    path = new Path2D(data);
    paths.set(data, path);
  }
  return path;
}
