<?php

declare(strict_types=1);

namespace Plinth\Core\Units\Exception;

/** A text that is no pitch of a roof. */
final class UnreadablePitch extends \DomainException implements UnitsException
{
    public static function unreadable(string $text): self
    {
        return new self(\sprintf('“%s” is no pitch: write 35, 1:4, 6/12 or 2 %%.', $text));
    }

    public static function tooSteep(string $text, float $most): self
    {
        return new self(\sprintf('“%s” is steeper than %.0f°: make the edge a gable.', $text, $most));
    }

    public function why(): string
    {
        return 'unreadable-pitch';
    }

    public function at(): string
    {
        return '';
    }
}
