<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

/**
 * Sides in a row: stretches of them, each joined to the one before at a shared corner, with their heights at one zero.
 */
final class Street
{
    /**
     * @param list<array{DrawnView, float, float, float}> $parts what a side shows, from where to where along it is taken, and how much
     *                                                           higher its zero lies than the street's; mm, from the left
     */
    public static function of(array $parts): DrawnView
    {
        [$lines, $faces] = [[], []];
        $left = 0.0;
        foreach ($parts as [$view, $from, $to, $rise]) {
            $part = $view->between($from, $to)->shifted($left - $from, $rise);
            array_push($lines, ...$part->lines);
            array_push($faces, ...$part->faces);
            $left += $to - $from;
        }

        return new DrawnView($lines, $faces);
    }
}
