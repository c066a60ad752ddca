<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

/** Somebody stopped the search, or asked for another. */
final class SearchStopped extends \RuntimeException
{
}
