<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\ReadWord;

/** What recognises words in a picture. */
interface Words
{
    /** @return list<ReadWord> */
    public function in(GreyRaster $picture): array;
}
