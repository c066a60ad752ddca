<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry\Exception;

/** Lines that come no nearer to meeting in their ends alone, however often they are cut. */
final class TooTangled extends \RuntimeException
{
    public static function afterRounds(int $rounds): self
    {
        return new self(\sprintf('These lines still cross after they were cut %d times.', $rounds));
    }
}
