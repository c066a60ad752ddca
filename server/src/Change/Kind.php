<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

/** What clients call a kind of row, and what they may do with it. */
#[\Attribute(\Attribute::TARGET_CLASS)]
final readonly class Kind
{
    /**
     * @param bool $isWritten rows that follow from others, or that only an import makes, are not written by clients
     * @param bool $isRemoved together with all that stands on them
     * @param bool $isMoved whether its place is its own, to be moved by so much
     * @param list<string> $mended values that clients may set right where they write nothing else
     */
    public function __construct(
        public string $name,
        public bool $isWritten = true,
        public bool $isRemoved = true,
        public array $mended = [],
        public bool $isMoved = true,
    ) {
    }

    /** Its name with its article. */
    public function one(): string
    {
        return (1 === preg_match('/^[aeiou]/', $this->name) ? 'an ' : 'a ').$this->name;
    }
}
