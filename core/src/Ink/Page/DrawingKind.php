<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/** What a drawing on a page shows. */
enum DrawingKind: string
{
    case Plan = 'plan';
    case Roof = 'roof';
    case Elevation = 'elevation';
    case Section = 'section';
    case Site = 'site';
    case Detail = 'detail';

    /** Whether it stands on a side; all others lie on a storey. */
    public function stands(): bool
    {
        return self::Elevation === $this || self::Section === $this;
    }
}
