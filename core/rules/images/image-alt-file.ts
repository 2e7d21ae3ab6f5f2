import { rule } from '../rule.ts'
import { shownImages } from '../../page/read/shown-images.ts'

const fileName = /^[^\s/]*[\w-]\.(?:jpe?g|png|gif|svg|webp|avif|bmp|tiff?|heic)$/i
/** Names of what a camera or a programmer calls any picture; common practice, no source. */
const anyPicture =
  /^(?:image|img|photo|picture|pic|graphic|icon|logo|bild|foto|billede|bilde|kuva|imagen|immagine|imagem|afbeelding|untitled|placeholder|spacer|(?:img|dsc|dscn|image|photo|picture)[\s_-]*\d+)$/i

/** An alternative text that is a file's name, or says only that there is a picture. */
export const imageAltFile = rule({
  id: 'image-alt-file',
  family: 'images',
  severity: 'flaw',
  sign: 'missing',
  name: 'Alternative text that says nothing',
  basis: 'WCAG 2.2, failure F30',
  why: 'People who cannot see the picture hear a file name, or only that there is a picture.',
  mend: 'Say what it shows; for an ornament, leave the alt empty.',
  needs: ['images'],
  message: ({ alt }) => `alt="${alt}" does not say what the picture shows.`,
  check({ page }, mark) {
    for (const image of shownImages(page)) {
      const alt = image.alt?.trim() ?? ''
      if (fileName.test(alt) || anyPicture.test(alt)) mark(image, { alt })
    }
  },
  examples: {
    clean: [
      '<img src=a.jpg alt="The lamp">',
      '<img src=a.jpg alt="">',
      '<img src=a.jpg>',
      '<img src=a.jpg alt="A photo of the lamp">',
    ],
    marked: [
      { html: '<img src=a.jpg alt="lamp-2.JPG">', at: '<img', says: /alt="lamp-2\.JPG" does not say/ },
      { html: '<img src=a.jpg alt="Image">', says: /alt="Image"/ },
      { html: '<img src=a.jpg alt="DSC_0042">', says: /DSC_0042/ },
    ],
  },
})
