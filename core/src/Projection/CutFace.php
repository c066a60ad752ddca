<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Bodies\BodyKind;

/** Where a body is cut. */
final readonly class CutFace
{
    /**
     * @param non-empty-list<array{float, float}> $outer u and v, mm, counter-clockwise
     * @param list<non-empty-list<array{float, float}>> $holes clockwise
     */
    public function __construct(
        public array $outer,
        public array $holes,
        public BodyKind $kind,
        public string $body,
        public string $storey,
    ) {
    }
}
