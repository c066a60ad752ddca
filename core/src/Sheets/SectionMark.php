<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Point;

/** Where a section is cut through a plan. */
final readonly class SectionMark
{
    /** @param non-empty-list<Point> $line from left to right as one looks; mm of the plan */
    public function __construct(public string $name, public array $line)
    {
    }

    /** “Section A” is marked A where it is cut. */
    public static function letter(string $name): string
    {
        $words = explode(' ', trim($name));
        $last = $words[\count($words) - 1];

        return mb_strlen($last) <= 3 && '' !== $last ? $last : mb_substr($name, 0, 12);
    }
}
