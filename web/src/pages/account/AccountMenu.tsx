import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { type Account, api } from "../../api/client";
import { initials } from "../../ui/initials";

export function AccountMenu({ account, onSignedOut }: { account: Account; onSignedOut: () => void }) {
  return (
    <Menu>
      <MenuButton
        className="flex size-8 items-center justify-center rounded-full bg-ink text-xs font-semibold text-white"
        aria-label={`Account of ${account.name}`}
      >
        {initials(account.name)}
      </MenuButton>
      <MenuItems anchor="bottom end" className="z-30 mt-1 rounded-lg border border-line bg-sheet p-1 shadow-sm">
        <div className="px-3 py-1.5 text-[13px] text-quiet">{account.email}</div>
        <MenuItem>
          <a className="block w-full rounded px-3 py-1.5 text-left data-focus:bg-white" href="#/account">
            Your account
          </a>
        </MenuItem>
        <MenuItem>
          <a
            className="block w-full rounded px-3 py-1.5 text-left data-focus:bg-white"
            href="#/meter"
            target="_blank"
            rel="noreferrer"
          >
            Simulated distance meter
          </a>
        </MenuItem>
        <MenuItem>
          <button
            type="button"
            className="w-full rounded px-3 py-1.5 text-left data-focus:bg-white"
            onClick={() => void api.POST("/api/sign-out").then(onSignedOut)}
          >
            Sign out
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}
