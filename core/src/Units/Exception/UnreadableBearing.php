<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Exception;

/** A text that is no bearing. */
final class UnreadableBearing extends \DomainException implements UnitsException
{
    public static function unreadable(string $text): self
    {
        return new self(\sprintf('“%s” is no bearing: write 126°55\'17", 63.25, or N 36°15\'20" E.', $text));
    }

    public static function beyondItsQuadrant(string $text): self
    {
        return new self(\sprintf('“%s” turns by more than 90° within its quadrant.', $text));
    }

    public static function beyondTheCircle(string $text): self
    {
        return new self(\sprintf('“%s” is more than 360°.', $text));
    }

    public function why(): string
    {
        return 'unreadable-bearing';
    }

    public function at(): string
    {
        return '';
    }
}
