<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Fitting\WrittenSize;
use Plinth\Server\Source\Drawing;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What has been read on drawings, that nobody has stated: a typed figure is held against it. */
#[AutoconfigureTag]
interface Writing
{
    /** @return WrittenSize|null null where it is not read, or does not say so surely */
    public function size(Drawing $drawing): ?WrittenSize;
}
