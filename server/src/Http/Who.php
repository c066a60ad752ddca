<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

/** Who may use a route. The last three are said of the project whose id stands in its path. */
enum Who
{
    case Anybody;
    case SignedIn;
    case Reader;
    case Editor;
    case Owner;
}
