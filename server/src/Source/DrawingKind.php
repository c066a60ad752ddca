<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

enum DrawingKind: string
{
    case Plan = 'plan';
    case Roof = 'roof';
    case Elevation = 'elevation';
    case Section = 'section';
    case Site = 'site';
    case Detail = 'detail';
}
