<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

/**
 * The wavefront or what it left behind holds together no more, mostly for want of digits: it is tried again a little otherwise.
 *
 * @internal
 */
final class Lost extends \RuntimeException
{
    public static function endless(): self
    {
        return new self('There are more events than a wavefront of so many fronts can have.');
    }

    public static function spike(): self
    {
        return new self('A front turns back onto itself.');
    }

    public static function unbalanced(): self
    {
        return new self('Fronts that come to a node do not leave it again one by one.');
    }

    public static function unsound(string $what): self
    {
        return new self($what);
    }
}
