<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Plan\Editing\MendAct;

/** A flaw of the plan: a stable code, the things concerned, a place and words. */
final readonly class Finding
{
    /**
     * @param list<string> $things ids of walls, openings or rooms
     * @param array{float, float} $at mm
     * @param MendAct|null $mend the one act that mends it: of two walls that lie on each other
     */
    public function __construct(
        public string $code,
        public array $things,
        public array $at,
        public string $message,
        public ?MendAct $mend = null,
    ) {
    }
}
