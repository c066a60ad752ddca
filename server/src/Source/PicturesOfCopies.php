<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Project\Copied;
use Symfony\Component\Uid\Uuid;

/** The pictures of a copied project's pages are made from the same source files. */
final readonly class PicturesOfCopies implements Copied
{
    public function __construct(private EntityManagerInterface $entities, private Pictures $pictures)
    {
    }

    public function copied(Uuid $copy): void
    {
        foreach ($this->entities->getRepository(Page::class)->findBy(['project' => $copy], ['id' => 'ASC']) as $page) {
            $this->pictures->make($page->key());
        }
    }
}
