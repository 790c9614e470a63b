/** Invented people of the sample school; a student's login is also the name of their essay in `documents/`. */
export const TEACHERS = ['Tamsin Adeyemi', 'Ruari Castellane'];

export const STUDENTS = [
  'Amaru Quispe',
  'Bronagh Tully',
  'Chidi Umeh',
  'Dagny Holmqvist',
  'Eleni Marathou',
  'Farid Noorzai',
  'Giulia Ferrante',
  'Hoku Kalani',
  'Ines Bettencourt',
  'Jomo Wekesa',
  'Kateryna Bilyk',
  'Liang Meixiu',
  'Mirza Hadžić',
  'Nomvula Dlangamandla',
  'Oyuna Batbayar',
  'Piotr Wysocki',
  'Quyen Truong',
  'Rania Haddadin',
  'Sione Tuipulotu',
  'Thandiwe Moyo',
  'Usha Ramanathan',
  'Vahan Petrosyan',
  'Wanja Gitau',
  'Xochitl Barrera',
  'Yusuf Demirkan',
  'Zofia Krol',
  'Aroha Ngata',
  'Bashir Osman',
  'Catrin Pryce',
  'Dorji Wangmo',
];

/** `Mirza Hadžić` → `mirza-hadzic`. */
export const loginOf = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]+/g, '-');
