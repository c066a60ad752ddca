<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

/** What a view shows beside what it is of; it keeps it, whatever is shown on the board. */
enum Shows: string
{
    case Dimensions = 'dimensions';
    case Inside = 'inside';
    case Stamps = 'stamps';
    case Numbers = 'numbers';
    case Objects = 'objects';
    case Drawn = 'drawn';
    case Notes = 'notes';
    case Axes = 'axes';
    case Sections = 'sections';
    case Levels = 'levels';
    case Hidden = 'hidden';
    case Colour = 'colour';
    case Wear = 'wear';
    case Hatch = 'hatch';
    case Bearings = 'bearings';
    case Ink = 'ink';
    /** classes of fire resistance, exits, and what doors are rated */
    case Enclosures = 'enclosures';
    /** ways out, from the worst place of each room */
    case Ways = 'ways';

    /** @return list<self> what a view shows that nobody has said otherwise of */
    public static function usually(ViewKind $kind): array
    {
        return match ($kind) {
            ViewKind::Plan => [
                self::Dimensions, self::Inside, self::Stamps, self::Numbers, self::Objects, self::Drawn, self::Notes, self::Axes,
                self::Sections, self::Levels,
            ],
            ViewKind::Side => [self::Dimensions, self::Drawn, self::Notes, self::Levels],
            ViewKind::Site => [self::Dimensions, self::Bearings],
            ViewKind::Notes => [self::Notes],
            default => [],
        };
    }

    /** @return list<self> what a plan shows that goes to whoever asks about fire */
    public static function onFirePlan(): array
    {
        return [self::Stamps, self::Numbers, self::Objects, self::Drawn, self::Notes, self::Enclosures, self::Ways];
    }
}
