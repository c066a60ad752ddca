<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

/** What is wrong with enclosures: a stable code, which of them, a place and words. */
final readonly class EnclosureFinding
{
    /**
     * @param 'overlap'|'stops'|'gap' $code
     * @param list<string> $enclosures by id
     * @param string $storey where its place is
     * @param array{float, float} $at mm
     */
    public function __construct(
        public string $code,
        public array $enclosures,
        public string $storey,
        public array $at,
        public string $message,
    ) {
    }
}
