<?php

declare(strict_types=1);

namespace Plinth\Core\Roof\Internal;

/**
 * What happens next in a part of the wavefront: two of its corners become one, or one comes to lie on the piece of front after another.
 *
 * @internal
 */
final readonly class Event
{
    /** @param float $after m of height until then */
    private function __construct(public float $after, public bool $cuts, public int $corner, public int $other, public int $part = 0)
    {
    }

    public static function shrunk(float $after, int $one, int $other): self
    {
        return new self($after, false, $one, $other);
    }

    /** @param int $before the corner after which the piece begins that is met */
    public static function met(float $after, int $corner, int $before): self
    {
        return new self($after, true, $corner, $before);
    }

    public function ofPart(int $part): self
    {
        return new self($this->after, $this->cuts, $this->corner, $this->other, $part);
    }
}
