<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Ink\Page\GreyFile;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Making\PictureHeader;

/** Grey values of imported pages, read window by window. */
final readonly class InkOfPages
{
    public function __construct(private EntityManagerInterface $entities, private FileStore $files)
    {
    }

    /** @return InkOfPage|null null while the page is not imported */
    public function of(Drawing|Page $row): ?InkOfPage
    {
        $page = $row instanceof Page ? $row : $this->entities->find(Page::class, $row->beside($row->page())->criteria());
        $folder = null === $page ? null : $this->files->pictures($page->key(), $page->pictures());
        if (null === $page || null === $folder) {
            return null;
        }

        return new InkOfPage(
            new GreyFile($folder.'/'.PageMaker::GREY, $page->width(), $page->height(), PictureHeader::BYTES, $page->isLightOnDark()),
            $page->pictures(),
        );
    }
}
