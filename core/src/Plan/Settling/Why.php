<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

/** Why a decided figure has nothing to hold. */
enum Why: string
{
    /** Between walls that run apart there is no one distance. */
    case NotParallel = 'not parallel';
    case Curved = 'curved';
    case WallGone = 'wall gone';
    /** It was taken and does not hold all the same: what it is measured between was left as it is by what outranks it. */
    case NotReached = 'not reached';
}
