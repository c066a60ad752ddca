<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Plausibility;

/** What a practitioner would look at twice: nothing is wrong by itself, and somebody may say that it is so. */
final readonly class Doubt
{
    /** All limits are common practice, no source. */
    public const STANDING = 'common practice';

    /**
     * @param string $thing id of a wall, opening, room or the storey; a region that has no name yet has none
     * @param array{float, float}|null $at mm; null where it has no place
     * @param string $message with the limit
     */
    public function __construct(public string $code, public string $thing, public ?array $at, public string $message)
    {
    }
}
