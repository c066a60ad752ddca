<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

/** What a view on a sheet is drawn from. */
enum ViewKind: string
{
    case Plan = 'plan';
    case Side = 'side';
    case Site = 'site';
    case Standing = 'standing';
    case Picture = 'picture';
    case Rooms = 'rooms';
    case Openings = 'openings';
    case Enclosures = 'enclosures';
    case Ways = 'ways';
    case Key = 'key';
    case Notes = 'notes';

    /** Whether it is drawn at a scale, about the zero of what it shows; otherwise it begins at its upper left corner. */
    public function isToScale(): bool
    {
        return \in_array($this, [self::Plan, self::Side, self::Site, self::Standing], true);
    }
}
