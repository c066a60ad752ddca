<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Ink\GreyFile;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Making\PictureHeader;
use Symfony\Component\Uid\Uuid;

/** Grey values of imported pages, read window by window. */
final readonly class PageInk
{
    public function __construct(private EntityManagerInterface $entities, private FileStore $files)
    {
    }

    /** @return InkOfPage|null null while the page is not imported */
    public function of(Uuid $page): ?InkOfPage
    {
        $row = $this->entities->find(Page::class, $page);
        $file = $this->files->pageFolder($page).'/'.PageMaker::GREY;
        if (null === $row || !is_file($file)) {
            return null;
        }

        return new InkOfPage(new GreyFile($file, $row->width(), $row->height(), PictureHeader::BYTES), $row->isLightOnDark());
    }
}
