<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

/** What a body is. */
enum BodyKind: string
{
    case Wall = 'wall';
    case Railing = 'railing';
    case Column = 'column';
    case Floor = 'floor';
    case Finish = 'finish';
    case Ceiling = 'ceiling';
    case Stair = 'stair';
    case Roof = 'roof';
    case Dormer = 'dormer';
    case Chimney = 'chimney';
    /** a profile along a path */
    case Swept = 'swept';
    case Frame = 'frame';
    case Leaf = 'leaf';
    case Pane = 'pane';
    case Object = 'object';
}
