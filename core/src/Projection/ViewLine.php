<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Bodies\BodyKind;

/** A straight line of a view: u to the right along its plane, v up; mm. */
final readonly class ViewLine
{
    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     * @param string $body id of what it is an edge of
     */
    public function __construct(
        public array $from,
        public array $to,
        public LineRole $role,
        public BodyKind $kind,
        public string $body,
        public string $storey,
    ) {
    }

    public function length(): float
    {
        return hypot($this->to[0] - $this->from[0], $this->to[1] - $this->from[1]);
    }
}
