<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

/** What is wrong with enclosures: a stable code, which of them, a place and words. */
final readonly class EnclosureFinding
{
    /**
     * @param 'overlap'|'stops'|'gap'|'open' $code
     * @param non-empty-list<string> $enclosures by id
     * @param string $storey where its place is
     * @param array{float, float} $at mm
     * @param string|null $room that would mend it, were it enclosed as well: beyond a gap, or where a stair goes on
     */
    public function __construct(
        public string $code,
        public array $enclosures,
        public string $storey,
        public array $at,
        public string $message,
        public ?string $room = null,
    ) {
    }
}
