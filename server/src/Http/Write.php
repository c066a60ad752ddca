<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

/** Marks an action that changes something: the request must carry the header that other origins cannot send. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Write
{
}
