<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/** How the posts under a stair's rails are set out. */
enum StairPosts: string
{
    /** so close that the clear gap between them is no more than so many mm */
    case Gap = 'gap';
    /** so many along each edge, first and last at its ends */
    case Number = 'number';
    /** one on every so manieth tread, the first one with it */
    case Treads = 'treads';
}
