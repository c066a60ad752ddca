<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * How figures are written on a drawing.
 *
 * @internal
 */
enum FigureKind: string
{
    /** 3420 */
    case Millimetres = 'mm';
    /** 3,420 */
    case Thousands = 'mm,';
    /** 3.42 */
    case Metres = 'm';
    /** 3.420 */
    case MetresToMillimetre = 'm3';
    /** 11'-2 1/2" */
    case FeetInches = 'ftin';

    /** @return list<list<self>> kinds that one drawing has beside each other */
    public static function together(): array
    {
        return [[self::Millimetres], [self::Thousands, self::Millimetres, self::MetresToMillimetre], [self::Metres], [self::FeetInches]];
    }
}
