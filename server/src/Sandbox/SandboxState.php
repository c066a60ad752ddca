<?php

declare(strict_types=1);

namespace Plinth\Server\Sandbox;

/** What the start command found of the kernel, and what it was told. */
enum SandboxState: string
{
    case On = 'on';
    /** the kernel allows none: nothing is brought in */
    case Missing = 'missing';
    /** the kernel allows none, and `--imports-without-sandbox` says to bring in nevertheless */
    case Off = 'off';
}
