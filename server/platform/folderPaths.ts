/** A common table expression `paths (id, path)`: each folder's names from the top, joined by slashes. */
export const FOLDER_PATHS = `with recursive paths as (
  select id, name as path from folder where parent_id is null
  union all
  select f.id, paths.path || '/' || f.name from folder f join paths on f.parent_id = paths.id
)`;
