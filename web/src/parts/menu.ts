/** How menus look. */
export const menuLook = 'z-40 min-w-44 border border-quiet bg-raised py-1';
export const menuItemLook =
  'flex cursor-pointer items-center justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-accent-soft data-[disabled]:opacity-40';
