<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** What a project says of fire: its classes, what is enclosed by them, and what it asks of its ways out. */
final readonly class FireSafety
{
    /**
     * @param list<FireClass> $classes no two of one key
     * @param list<Enclosure> $enclosures in the order in which they were made
     * @param list<array{string, string}> $together ids of two classes each that may lie over one place
     * @param list<EscapeLimit> $limits one for each measure at most
     */
    public function __construct(
        public array $classes = [],
        public array $enclosures = [],
        public array $together = [],
        public array $limits = [],
    ) {
    }
}
